"""Rows named for good, bodies with a version, kinds free.

Revision: 0004, after 0003
"""

import uuid

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"
branch_labels = None
depends_on = None

#: table: (its column for rows put away, its column of the making, its body)
TABLES = {
    "scenario": ("deleted_at", "created_at", "body"),
    "item": ("deleted_at", "created_at", "data"),
    "observation": ("withdrawn_at", "made_at", "data"),
}


def upgrade() -> None:
    bind = op.get_bind()
    for table, (gone, made, body) in TABLES.items():
        kind = [sa.Column("kind", sa.String(20), nullable=False)] if table != "scenario" else []
        named = [
            sa.Column("name", sa.String(80), nullable=False),
            sa.Column("note", sa.String(400), nullable=False),
            sa.Column("pick", sa.String(200), nullable=False),
        ]
        op.rename_table(table, f"old_{table}")
        op.create_table(
            table,
            sa.Column("id", sa.Integer(), nullable=False),
            sa.Column("uid", sa.String(36), nullable=False),
            sa.Column("version", sa.Integer(), nullable=False),
            sa.Column("created_at", sa.DateTime(), nullable=False),
            sa.Column("gone_at", sa.DateTime(), nullable=True),
            *(kind or named),
            sa.Column("body", sa.JSON(), nullable=False),
            sa.PrimaryKeyConstraint("id", name=op.f(f"pk_{table}")),
            sa.UniqueConstraint("uid", name=op.f(f"uq_{table}_uid")),
        )
        own = "kind" if kind else "name, note, pick"
        for (id_,) in bind.execute(sa.text(f"select id from old_{table}")).fetchall():
            bind.execute(
                sa.text(
                    f"insert into {table} (id, uid, version, created_at, gone_at, {own}, body) "
                    f"select id, :uid, 1, {made}, {gone}, {own}, {body} from old_{table} where id = :id"
                ),
                {"uid": str(uuid.uuid4()), "id": id_},
            )
        op.drop_table(f"old_{table}")
    op.create_index(op.f("ix_item_kind"), "item", ["kind"])
