"""A school from nothing: set up, served behind nginx over HTTPS, with people who come in by links and codes."""

import signal
import subprocess
import time
from contextlib import contextmanager
from pathlib import Path

import pyotp
import pytest
from playwright.sync_api import expect

from tests.browser.teaching import Student, codes_on, new_class
from tests.running.a_school import ROOT, School, link_in
from widepin.running.mariadb import free_port

PASSWORD = "mallet chisel plumb line"


@contextmanager
def nginx(folder: Path, port: int, school: School):
    """Debian's nginx with the site of deploy/, a certificate of its own, and its ports on the loopback interface."""
    key, certificate = folder / "key.pem", folder / "certificate.pem"
    subprocess.run(
        ["openssl", "req", "-x509", "-newkey", "ec", "-pkeyopt", "ec_paramgen_curve:prime256v1", "-nodes"]
        + ["-days", "2", "-subj", "/CN=localhost", "-addext", "subjectAltName=DNS:localhost"]
        + ["-keyout", str(key), "-out", str(certificate)],
        check=True,
        capture_output=True,
    )
    site = (ROOT / "deploy" / "nginx.conf").read_text()
    for stands, wanted in (
        ("construct.example.org", "localhost"),
        ("/etc/ssl/widepin/fullchain.pem", certificate),
        ("/etc/ssl/widepin/privkey.pem", key),
        ("127.0.0.1:8318", f"127.0.0.1:{school.port}"),
        ("    listen [::]:80;\n", ""),
        ("    listen [::]:443 ssl http2;\n", ""),
        ("listen 80;", f"listen 127.0.0.1:{free_port()};"),
        ("listen 443 ssl", f"listen 127.0.0.1:{port} ssl"),
    ):
        assert stands in site, stands
        site = site.replace(stands, str(wanted))
    scratch = "".join(
        f"{name}_temp_path {folder / name};\n" for name in ("client_body", "proxy", "fastcgi", "uwsgi", "scgi")
    )
    (folder / "nginx.conf").write_text(
        f"daemon off;\nuser root;\npid {folder / 'pid'};\nerror_log {folder / 'error.log'};\nevents {{}}\n"
        f"http {{\naccess_log {folder / 'access.log'};\ninclude /etc/nginx/mime.types;\n{scratch}{site}}}\n"
    )
    command = ["/usr/sbin/nginx", "-e", str(folder / "error.log"), "-c", str(folder / "nginx.conf")]
    process = subprocess.Popen(command)
    try:
        yield
    finally:
        process.terminate()
        process.wait(20)


@pytest.fixture(scope="module")
def school(tmp_path_factory):
    """A school that is served behind nginx, with the link for its first administrator."""
    folder, port = tmp_path_factory.mktemp("school"), free_port()
    made = School(folder, f"https://localhost:{port}")
    made.setup()
    made.start()
    with nginx(tmp_path_factory.mktemp("nginx"), port, made):
        yield made
    made.stop()


@pytest.fixture(scope="module")
def enter(browser):
    """Opens an address in a browser of its own, which trusts the school's certificate."""
    here = []

    def open_page(address):
        here.append(browser.new_context(viewport={"width": 1280, "height": 800}, ignore_https_errors=True))
        page = here[-1].new_page()
        page.goto(address)
        return page

    yield open_page
    for context in here:
        context.close()


def join(page, name, login):
    page.get_by_label("Your name").fill(name)
    page.get_by_label("A login").fill(login)
    page.get_by_label("A password").fill(PASSWORD)
    page.get_by_role("button", name="Make your account").click()


def sign_in(page, login):
    page.get_by_label("Login").fill(login)
    page.get_by_label("Password").fill(PASSWORD)
    page.get_by_role("button", name="Sign in").click()


@pytest.fixture(scope="module")
def administrator(school, enter):
    """Ada Thorne, who has used the first link."""
    page = enter(school.address + link_in(school.first_said))
    join(page, "Ada Thorne", "ada.thorne")
    expect(page.get_by_role("link", name="School", exact=True)).to_be_visible()
    return page


@pytest.fixture(scope="module")
def teacher(administrator, enter):
    """Tam Reed, invited by the administrator."""
    administrator.get_by_role("link", name="School", exact=True).click()
    administrator.get_by_label("Invite a teacher").fill("Tam Reed")
    administrator.get_by_role("button", name="Make a link").click()
    link = administrator.get_by_label("The link", exact=True).input_value()
    page = enter(link)
    expect(page.get_by_label("Your name")).to_have_value("Tam Reed")
    join(page, "Tam Reed", "tam.reed")
    expect(page.locator(".first-week li")).to_have_count(6)
    return page


@pytest.fixture(scope="module")
def codes(teacher):
    """The codes of the two students of Tam Reed's first class, to which a task was assigned."""
    teacher.get_by_role("link", name="Classes", exact=True).click()
    new_class(teacher, "First year")
    teacher.get_by_label("One name per line").fill("Asa Quill\nBet Rudd")
    teacher.get_by_role("button", name="Preview the list").click()
    teacher.get_by_role("button", name="Add the selected students").click()
    class_code = teacher.locator(".heading .code").inner_text()
    rows = teacher.locator(".students summary")
    expect(rows).to_have_count(2)
    personal = codes_on(teacher)
    teacher.get_by_role("link", name="Task library").click()
    teacher.locator(".work-card", has_text="Perpendicular bisector").first.click()
    teacher.get_by_role("button", name="Assign", exact=True).click()
    teacher.get_by_role("button", name="Assign to").click()
    return {name: (class_code, code) for name, code in personal.items()}


@pytest.fixture
def before_task(school, codes, browser):
    """Lets a student in and opens the task."""
    here = []

    def let_in(name):
        here.append(Student(browser, school.address, *codes[name], ignore_https_errors=True))
        here[-1].page.locator(".work-card").first.click()
        here[-1].page.wait_for_selector(".board-page[data-ready]")
        return here[-1]

    yield let_in
    for one in here:
        one.context.close()


def test_the_doctor_finds_the_school_behind_nginx_well(school):
    assert "ready on" in school.must("doctor")


def test_nginx_tells_nobody_outside_how_the_server_does(school, enter):
    for path in ("healthz", "readyz", "metrics"):
        expect(enter(f"{school.address}/{path}").locator("body")).to_contain_text("404")


def test_the_links_work_once(school, administrator, enter):
    page = enter(school.address + link_in(school.first_said))
    expect(page.get_by_role("heading")).to_have_text("This link does not work any more")


def test_a_teacher_who_looks_after_nothing_does_not_see_the_school(school, teacher):
    teacher.goto(school.address)
    expect(teacher.get_by_role("link", name="School", exact=True)).to_have_count(0)


def test_a_student_hands_in_through_nginx_and_it_is_the_same_after_a_restore_elsewhere(
    school, codes, before_task, enter, browser, tmp_path
):
    student = before_task("Asa Quill")
    student.build(("circle", "ABBA"), ("intersection", "cd1cd"), ("line", "CD"))
    expect(student.hand_in().locator(".result-item.good")).to_have_count(3)

    file = tmp_path / "school.widepin"
    assert "the same" in school.must("backup", file)
    elsewhere = School(tmp_path / "elsewhere")
    elsewhere.folder.mkdir()
    elsewhere.must("restore", "--data", elsewhere.data, file)
    elsewhere.must(
        "setup", "--no-questions", "--address", elsewhere.address, "--port", elsewhere.port, "--proxies", "0"
    )
    try:
        elsewhere.start()
        page = enter(elsewhere.address)
        sign_in(page, "tam.reed")
        page.get_by_role("link", name="First year").click()
        expect(page.locator("body")).to_contain_text("Quill, Asa")
        again = Student(browser, elsewhere.address, *codes["Asa Quill"])
        expect(again.page.locator(".work-card")).to_contain_text("correct in every position")
        again.context.close()
    finally:
        elsewhere.stop()


def test_no_step_is_lost_while_the_server_starts_again(school, before_task):
    student = before_task("Bet Rudd")
    school.process.send_signal(signal.SIGHUP)
    student.page.locator(".card-tool[data-make=point]").click()
    for number in range(8):
        student.page.keyboard.type(f"{number}, 2.5")
        student.page.keyboard.press("Enter")
        time.sleep(0.4)
    expect(student.page.locator(".save-state")).to_have_text("All changes saved", timeout=120_000)
    student.page.reload()
    student.page.wait_for_selector(".board-page[data-ready]")
    expect(student.page.locator(".step-list li[data-step]")).to_have_count(8)


def test_a_second_factor_is_set_up_asked_for_and_done_without(school, teacher, enter):
    teacher.get_by_role("link", name="Tam Reed").click()
    teacher.get_by_role("link", name="Set it up").click()
    expect(teacher.locator(".qr-picture svg")).to_be_visible()
    codes = pyotp.TOTP(teacher.locator(".second-factor code").inner_text())
    teacher.get_by_label("Code", exact=True).fill("000000")
    teacher.get_by_label("Present password").fill(PASSWORD)
    teacher.get_by_role("button", name="Ask for codes from now on").click()
    expect(teacher.get_by_role("alert")).to_contain_text("does not fit")
    teacher.get_by_label("Code", exact=True).fill(codes.now())
    teacher.get_by_label("Present password").fill(PASSWORD)
    teacher.get_by_role("button", name="Ask for codes from now on").click()
    recovery = teacher.locator(".recovery-codes li").first.inner_text()
    teacher.get_by_role("link", name="I have them").click()

    page = enter(school.address)
    sign_in(page, "tam.reed")
    page.get_by_label("Code, or one").fill("123456")
    page.get_by_role("button", name="Sign in").click()
    expect(page.get_by_role("alert")).to_contain_text("does not fit")
    page.get_by_label("Code, or one").fill(recovery)
    page.get_by_role("button", name="Sign in").click()
    expect(page.get_by_role("banner").get_by_role("link", name="Today")).to_be_visible()

    teacher.get_by_role("banner").get_by_role("link", name="Tam Reed").click()
    expect(teacher.locator(".sessions li")).to_have_count(2)
    teacher.get_by_role("button", name="End all but this one").click()
    expect(teacher.locator(".sessions li")).to_have_count(1)
    page.reload()
    expect(page.get_by_role("heading", name="Sign in", exact=True)).to_be_visible()
    teacher.get_by_label("Present password").last.fill(PASSWORD)
    teacher.get_by_role("button", name="Do without").click()
    expect(teacher.get_by_role("link", name="Set it up")).to_be_visible()


def test_an_administrator_gives_a_class_a_second_teacher_and_sees_it_in_the_log(administrator, codes):
    administrator.get_by_role("link", name="School", exact=True).click()
    administrator.get_by_role("link", name="Classes", exact=True).last.click()
    administrator.locator(".row-link", has_text="First year").click()
    administrator.get_by_label("Whose class it is").select_option(label="Ada Thorne")
    administrator.get_by_role("checkbox", name="Tam Reed").check()
    administrator.get_by_role("button", name="Save").click()
    expect(administrator.locator(".row-link", has_text="First year")).to_contain_text("Ada Thorne, Tam Reed")
    administrator.get_by_role("link", name="Log").click()
    expect(administrator.locator(".audit")).to_contain_text("handed over the class First year")
    expect(administrator.locator(".audit")).to_contain_text("invited")
