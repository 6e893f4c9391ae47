"""How the program runs: port, host, data file, log level. Flags win over the environment, that over these
defaults."""

from pathlib import Path
from typing import Literal

from pydantic import Field
from pydantic_settings import BaseSettings, SettingsConfigDict


def users_data() -> Path:
    """Where a user's own data lives unless told otherwise."""
    return Path.home() / ".local" / "share" / "heathdrop" / "heathdrop.sqlite"


class Settings(BaseSettings):
    """Read from ``HEATHDROP_PORT``, ``HEATHDROP_HOST``, ``HEATHDROP_DATA``, ``HEATHDROP_LOG_LEVEL``."""

    model_config = SettingsConfigDict(env_prefix="HEATHDROP_")

    port: int = Field(default=8640, ge=1, le=65535)
    host: str = "127.0.0.1"
    data: Path = Field(default_factory=users_data)
    log_level: Literal["debug", "info", "warning", "error"] = "warning"

    def merged(self, **flags: object) -> "Settings":
        """These settings with the flags that were given. Raises ValidationError."""
        return Settings.model_validate(
            {**self.model_dump(), **{k: v for k, v in flags.items() if v is not None}}
        )
