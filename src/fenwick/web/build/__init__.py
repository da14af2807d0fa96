"""Build: what is made or bought for a design, in what order, and how far it is."""

from fenwick.web.build.files import bp as files_bp
from fenwick.web.build.first_run import bp as first_run_bp
from fenwick.web.build.measured import bp as measured_bp
from fenwick.web.build.photos import bp as photos_bp
from fenwick.web.build.routes import bp
from fenwick.web.build.ways import bp as ways_bp

bp.register_blueprint(files_bp)
bp.register_blueprint(first_run_bp)
bp.register_blueprint(measured_bp)
bp.register_blueprint(ways_bp)
bp.register_blueprint(photos_bp)

__all__ = ["bp"]
