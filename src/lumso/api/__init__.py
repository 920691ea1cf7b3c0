"""The API: thin routers over the core and the store."""

import lumso.core.advice.library
import lumso.core.edits.edit
import lumso.core.mixing.recipe_page
import lumso.core.plan.plan
import lumso.core.work.batch_file
import lumso.core.work.sheet
import lumso.core.work.steps  # noqa: F401  # all that is sent and received must be known before it is built
from lumso.formats.validators import build_once

build_once()
