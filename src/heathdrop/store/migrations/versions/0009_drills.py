"""Answers to the trainer's questions.

Revision: 0009, after 0008
"""

import sqlalchemy as sa
from alembic import op

revision = "0009"
down_revision = "0008"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "drill",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("uid", sa.String(36), nullable=False),
        sa.Column("version", sa.Integer(), nullable=False),
        sa.Column("created_at", sa.DateTime(), nullable=False),
        sa.Column("gone_at", sa.DateTime(), nullable=True),
        sa.Column("body", sa.JSON(), nullable=False),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_drill")),
        sa.UniqueConstraint("uid", name=op.f("uq_drill_uid")),
    )
