"""The application factory: settings, the database, the places, and nothing else."""

from __future__ import annotations

from flask import Flask
from flask_wtf.csrf import CSRFProtect

from fenwick import __version__
from fenwick.data import Database
from fenwick.data.allowed import allowed_hosts
from fenwick.data.home import Home
from fenwick.devices.hub import Hub
from fenwick.web import (
    ageing,
    air_log,
    build,
    checks,
    device,
    dust,
    faults,
    home,
    hood,
    lessons,
    line,
    log,
    phone,
    pieces,
    practice,
    readings,
    reference,
    separator,
    settings,
    start,
    tour,
    trials,
    workings,
)
from fenwick.web import (
    backups as backup_pages,
)
from fenwick.web import (
    door as door_pages,
)
from fenwick.web import (
    shop as shop_pages,
)
from fenwick.web.kit import bounds, clash, database, door, errors, help, history, imports, page, security
from fenwick.web.kit import tour as tour_words
from fenwick.web.kit.door import Entrance
from fenwick.web.kit.filters import init_filters
from fenwick.web.kit.jobs import Jobs
from fenwick.web.phone.held import HeldReadings
from fenwick.web.separator import finder

csrf = CSRFProtect()


def create_app(shop: Database, secret_key: str, entrance: Entrance | None = None) -> Flask:
    """A Fenwick application on one shop.

    Parameters
    ----------
    shop : an open database
    secret_key : signs the session cookie that guards forms
    entrance : who may come in; None: whoever is at this machine
    """
    app = database.ServedShop(__name__)
    app.config.update(
        SECRET_KEY=secret_key,
        WTF_CSRF_TIME_LIMIT=None,
        SEND_FILE_MAX_AGE_DEFAULT=3600,
    )
    app.jinja_env.trim_blocks = app.jinja_env.lstrip_blocks = True
    app.jinja_env.globals["version"] = __version__
    app.jinja_env.globals["made_of"] = history.states
    app.jinja_env.globals["once_token"] = imports.once_token
    app.jinja_env.globals["asks_to_sign_in"] = entrance is not None and entrance.door is not None
    bounds.init_app(app)
    door.init_app(app, entrance or Entrance())
    csrf.init_app(app)
    database.init_app(app)
    open_on(app, shop)
    security.init_app(app)
    errors.init_app(app)
    clash.init_app(app)
    init_filters(app)
    page.init_app(app)
    help.init_app(app)
    tour_words.init_app(app)
    for place in (
        home,
        line,
        log,
        separator,
        build,
        hood,
        dust,
        ageing,
        checks,
        readings,
        faults,
        trials,
        air_log,
        practice,
        lessons,
        phone,
        device,
        finder,
        start,
        tour,
        shop_pages,
        settings,
        reference,
        workings,
        pieces,
        door_pages,
        backup_pages,
    ):
        app.register_blueprint(place.bp)
    return app


def open_on(app: Flask, shop: Database) -> None:
    """Give an application its shop, with no work in hand and no device open yet."""
    app.extensions["fenwick-shop"] = shop
    app.extensions["fenwick-jobs"] = Jobs()
    app.extensions["fenwick-devices"] = Hub(lambda: allowed_hosts(Home.of(shop.path)))
    app.extensions["fenwick-held-readings"] = HeldReadings()
    app.extensions["fenwick-recordings"] = {}
