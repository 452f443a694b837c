"""Scripts and styles are kept by browsers for good, under an address that changes with what is in them."""

import gzip

from widepin.web.serving import static_files


def url(app, filename):
    with app.test_request_context():
        return app.url_for("static", filename=filename)


def test_a_file_under_the_address_of_its_version_is_kept(app):
    address = url(app, "look/look.css")
    assert address == f"/static/{static_files.digest()}/look/look.css"
    answer = app.test_client().get(address)
    assert answer.status_code == 200
    kept = answer.cache_control
    assert kept.immutable and kept.public and kept.max_age > 365 * 24 * 3600 and not kept.no_cache


def test_a_file_is_the_same_for_whoever_signs_in_at_a_browser(as_person, app):
    for client in (as_person("ilse.marran"), app.test_client()):
        answer = client.get(url(app, "board/board.js"), headers={"Accept-Encoding": "gzip"})
        assert "Cookie" not in answer.vary and "Set-Cookie" not in answer.headers
        assert answer.content_encoding == "gzip"
        assert gzip.decompress(answer.data) == (static_files.FOLDER / "board/board.js").read_bytes()
        assert answer.headers["X-Content-Type-Options"] == "nosniff"


def test_a_page_of_an_older_version_gets_the_file_as_it_is_now_and_does_not_keep_it(app):
    client = app.test_client()
    now = client.get(url(app, "look/look.css")).data
    for address in ("/static/look/look.css", "/static/0123456789ab/look/look.css"):
        answer = client.get(address)
        assert answer.data == now and not answer.cache_control.immutable
    assert client.get("/static/0123456789ab/look/nothing.css").status_code == 404
    assert client.get("/static/0123456789ab/../app.py").status_code == 404


def test_the_version_changes_with_any_file(tmp_path, monkeypatch):
    (tmp_path / "board").mkdir()
    script = tmp_path / "board" / "board.js"
    script.write_text("let a = 1;")
    monkeypatch.setattr(static_files, "FOLDER", tmp_path)
    first = static_files.digest.__wrapped__()
    script.write_text("let a = 2;")
    second = static_files.digest.__wrapped__()
    script.rename(tmp_path / "board" / "paper.js")
    assert len({first, second, static_files.digest.__wrapped__()}) == 3
