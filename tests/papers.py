"""A paper as a browser gets it: its page is asked again until the paper is there."""

import time


def paper_from(client, address):
    """The answer with the paper, or with what went wrong."""
    for _ in range(600):
        answer = client.get(address)
        if "refresh" not in {name.lower() for name in dict(answer.headers)}:
            return answer
        address = address.replace("?again=1", "")
        time.sleep(0.1)
    raise AssertionError("the paper was not there after a minute")
