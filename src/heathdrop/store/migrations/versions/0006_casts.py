"""Casts that were made.

Revision: 0006, after 0005
"""

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "cast_made",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("uid", sa.String(36), nullable=False),
        sa.Column("version", sa.Integer(), nullable=False),
        sa.Column("created_at", sa.DateTime(), nullable=False),
        sa.Column("gone_at", sa.DateTime(), nullable=True),
        sa.Column("stop", sa.String(200), nullable=False),
        sa.Column("body", sa.JSON(), nullable=False),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_cast_made")),
        sa.UniqueConstraint("uid", name=op.f("uq_cast_made_uid")),
    )
    op.create_index(op.f("ix_cast_made_stop"), "cast_made", ["stop"])
