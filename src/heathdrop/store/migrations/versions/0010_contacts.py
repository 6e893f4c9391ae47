"""Casts are found by what they came to: contacts among thousands.

Revision: 0010, after 0009
"""

from alembic import op

revision = "0010"
down_revision = "0009"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.execute("create index ix_cast_made_outcome on cast_made (json_extract(body, '$.outcome'))")
