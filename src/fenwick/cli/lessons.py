"""`fenwick lesson`: a judgement that goes wrong, worked out."""

from __future__ import annotations

import json

import click

from fenwick.cli.commands import fail, main


@main.command()
@click.argument("key", required=False)
def lesson(key: str | None) -> None:
    """Work out the lesson KEY and print it as JSON; without KEY, the lessons that there are."""
    from fenwick.services.lessons import BY_KEY, lesson_document
    from fenwick.wording.lessons import LESSON_WORDS

    if key is None:
        told = {name: {"title": words.title, "question": words.question} for name, words in LESSON_WORDS.items()}
        click.echo(json.dumps({"format": "fenwick-lessons", "version": 1, "lessons": told}, indent=2))
        return
    if key not in BY_KEY:
        fail(f"there is no lesson “{key[:40]}”; there are {', '.join(BY_KEY)}")
    found = lesson_document(key)
    words = LESSON_WORDS[key]
    told_words = {"question": words.question, "answers": list(words.answers), "why": words.why}
    click.echo(json.dumps({**found, **told_words}, indent=2, ensure_ascii=False))
