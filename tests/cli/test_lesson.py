"""`fenwick lesson`: the list, one worked out, and a key that is none."""

import json

from click.testing import CliRunner

from fenwick.cli import main
from fenwick.services.lessons import BY_KEY, lived


def test_the_list_and_one_of_them_as_json() -> None:
    told = json.loads(CliRunner().invoke(main, ["lesson"]).output)
    assert set(told["lessons"]) == set(BY_KEY)
    one = json.loads(CliRunner().invoke(main, ["lesson", "tape"]).output)
    assert (one["format"], one["version"], one["right"]) == ("fenwick-lesson", 1, lived("tape").right)
    assert one["figures"]["kept"]["after"] > one["figures"]["kept"]["before"]
    assert len(one["answers"]) == 3


def test_what_is_no_lesson_ends_with_two_and_names_those_there_are() -> None:
    told = CliRunner().invoke(main, ["lesson", "nothing"])
    assert told.exit_code == 2
    assert "leak-below" in told.output
