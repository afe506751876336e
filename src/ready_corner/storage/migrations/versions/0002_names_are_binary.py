"""Names and identities are compared byte for byte: no letter stands for another, no space at the end is passed over."""

from alembic import op

revision = "0002"
down_revision = "0001"

BINARY = "CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL"


def upgrade() -> None:
    """Change the columns; the foreign key between two of them is taken off meanwhile. MariaDB commits each statement, so each may be run again."""
    op.execute("ALTER TABLE entries DROP FOREIGN KEY IF EXISTS fk_entries_car_id")
    op.execute(f"ALTER TABLE cars MODIFY id VARCHAR(36) {BINARY}, MODIFY slug VARCHAR(80) {BINARY}")
    op.execute(
        f"ALTER TABLE entries MODIFY car_id VARCHAR(36) {BINARY}, MODIFY id VARCHAR(36) {BINARY}, MODIFY kind VARCHAR(20) {BINARY}"
    )
    op.execute("ALTER TABLE entries ADD CONSTRAINT fk_entries_car_id FOREIGN KEY (car_id) REFERENCES cars (id)")
