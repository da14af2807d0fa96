"""Build: what is made or bought for a design, in what order, and how far it is."""

from fenwick.web.build.files import bp as files_bp
from fenwick.web.build.first_run import bp as first_run_bp
from fenwick.web.build.make_or_buy import bp as make_or_buy_bp
from fenwick.web.build.measured import bp as measured_bp
from fenwick.web.build.photos import bp as photos_bp
from fenwick.web.build.routes import bp

bp.register_blueprint(files_bp)
bp.register_blueprint(first_run_bp)
bp.register_blueprint(measured_bp)
bp.register_blueprint(make_or_buy_bp)
bp.register_blueprint(photos_bp)

__all__ = ["bp"]
