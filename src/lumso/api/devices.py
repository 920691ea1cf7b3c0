"""The devices beside Lumso, as the application holds them."""

from fastapi import Request

from lumso.core.pour.scale import Connection
from lumso.devices.weighing import Scale
from lumso.services.bench import ScaleOut


def scale_of(request: Request) -> Scale | None:
    """The scale that is listened to; None where there is none."""
    scale: Scale | None = request.app.state.scale
    return scale


def scale_out(request: Request) -> ScaleOut:
    """The scale as it is."""
    scale = scale_of(request)
    if scale is None:
        return ScaleOut(state="none", simulated=False, reading=None)
    return ScaleOut(state=scale.state, simulated=scale.simulated, reading=scale.reading)


def sensor_state(request: Request) -> Connection:
    """Whether the sensor of the room is listened to."""
    listener = request.app.state.room
    return listener.state if listener else "none"
