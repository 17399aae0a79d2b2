"""Gaze from Python, by ctypes alone: plays the first seconds of a level and prints who noticed whom.

    python3 main.py LIBRARY LEVEL [SECONDS]
"""
import ctypes as c
import sys


class Text(c.Structure):
    _fields_ = [("at", c.c_char_p), ("length", c.c_size_t)]


class Vector(c.Structure):
    _fields_ = [("x", c.c_double), ("y", c.c_double), ("z", c.c_double)]


class Agent(c.Structure):
    _fields_ = [("index", c.c_uint32), ("generation", c.c_uint32)]


class State(c.Structure):
    _fields_ = [("size", c.c_size_t), ("position", Vector),
                ("facing_x", c.c_double), ("facing_y", c.c_double),
                ("head_x", c.c_double), ("head_y", c.c_double),
                ("health", c.c_double), ("score", c.c_double), ("target", Agent),
                ("team", c.c_uint32), ("mode", c.c_int32), ("is_alive", c.c_int32), ("is_awake", c.c_int32)]


class Event(c.Structure):
    _fields_ = [("size", c.c_size_t), ("what_at", c.c_void_p), ("what_length", c.c_size_t), ("tick", c.c_int64)]


class Gaze:
    def __init__(self, library):
        self.calls = c.CDLL(library)
        self.calls.gaze_why.restype = Text
        self.calls.gaze_seconds.restype = c.c_double

    def __getattr__(self, name):
        """Calls what is asked for, and raises what it refuses."""
        call = getattr(self.calls, "gaze_" + name)

        def checked(*arguments):
            if call(*arguments) != 0:
                why = self.calls.gaze_why()
                raise RuntimeError(why.at[:why.length].decode())

        return checked


def words(text):
    data = text.encode()
    return Text(data, len(data))


def agents_of(gaze, game):
    count = c.c_size_t()
    gaze.calls.gaze_agents(game, None, 0, c.byref(count))
    agents = (Agent * count.value)()
    gaze.agents(game, agents, count.value, c.byref(count))
    return agents


def told(gaze, game):
    """The lines of what happened in the last step."""
    count = c.c_size_t()
    line, length = c.create_string_buffer(512), c.c_size_t()
    first = Event(size=c.sizeof(Event))
    gaze.calls.gaze_events(game, c.byref(first), 0, 0, c.byref(count))
    for number in range(count.value):
        gaze.describe(game, number, line, len(line), c.byref(length))
        yield line.raw[:length.value].decode()


def main(library, file, seconds):
    gaze = Gaze(library)
    level, prepared, game = c.c_void_p(), c.c_void_p(), c.c_void_p()
    gaze.level_read(words(file), c.byref(level))
    gaze.prepare(level, c.byref(prepared))
    gaze.begin(prepared, c.byref(game))
    while gaze.calls.gaze_seconds(game) < seconds:
        gaze.step(game)
        for line in told(gaze, game):
            if " noticed " in line:
                print(f"{gaze.calls.gaze_seconds(game):7.3f} s  {line}")
    agents = agents_of(gaze, game)
    states = (State * len(agents))(State(size=c.sizeof(State)))
    gaze.states(game, agents, len(agents), states, c.sizeof(State))
    alive = sum(state.is_alive for state in states)
    print(f"{alive} of {len(agents)} agents are up after {gaze.calls.gaze_seconds(game):.0f} s")
    gaze.calls.gaze_game_free(game)
    gaze.calls.gaze_prepared_free(prepared)
    gaze.calls.gaze_level_free(level)


if __name__ == "__main__":
    main(sys.argv[1], sys.argv[2], float(sys.argv[3]) if len(sys.argv) > 3 else 10.0)
