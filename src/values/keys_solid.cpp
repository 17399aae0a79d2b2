#include "values/keys.hpp"
#include "values/ranges.hpp"

/// The keys of solids, and of links between what one stands on.
namespace gaze {
namespace {

using Sort = Key::Sort;

constexpr Key kId = other("id", Sort::name, kMustBeGiven, "unlike all other ids");
constexpr Key kMaterial = other("material", Sort::name, kMustBeGiven, "what it is made of");
constexpr Key kPath = other("path", Sort::outline, kMustBeGiven, "2 to 10,000 points")
                          .with(
                              "The path is widened to both sides, with flat ends and mitred "
                              "corners. One that ends where it began is closed and mitred there.");
constexpr Key kThickness = number("thickness", kSize, 0.2, "across the path");
constexpr Key kBase = number("base", kCoordinate, "the ground", "not in `upright` levels");
constexpr Key kHeight =
    number("height", {0.0, LevelLimits::coordinate, "m", true}, 2.5, "not in `upright` levels")
        .with("In `upright` levels solids are endless across the view.");
constexpr Key kSlab = number("thickness", kSize, 0.2, "of the slab, downwards");
constexpr Key kFrom = other("from", Sort::point3, kMustBeGiven, "the middle of one end, on top");
constexpr Key kTo = other("to", Sort::point3, kMustBeGiven, "the middle of the other end, on top");
constexpr Key kWidth = number("width", kSize, kMustBeGiven, "across the way up");

constexpr Key kCanGo =
    other("can_go", Sort::truth, "false", "a program may take it away and put it back")
        .with("Ways then lead through where it was. Nobody walks on top of what can go.");

constexpr Key kWallRows[] = {kId, kMaterial, kPath, kThickness, kBase, kHeight, kCanGo};

constexpr Key kBlockRows[] = {
    kId,
    kMaterial,
    other("outline", Sort::outline, kMustBeGiven, "3 to 500 points, either way round"),
    kBase,
    kHeight,
    number("health", {0.0, 1e9, "points", true}, "never breaks", "what it takes to break it")
        .with("Shots, beams and blasts that meet it take their damage from its health. At 0 it "
              "`broke`, and is gone."),
    kCanGo,
};

constexpr Key kDoorRows[] = {
    kId,
    kMaterial,
    kPath,
    kThickness,
    kBase,
    kHeight,
    other("opens_for", Sort::names, "anybody", "who opens it by coming near"),
    number("opens_within", kSize, 1.2, "how near: from the leaf to the feet"),
    number("closes_after", kPause, 2.0, "once nobody is so near any more"),
};

constexpr Key kFloorRows[] = {
    kId, kMaterial,
    other("outline", Sort::outline, kMustBeGiven, "3 to 500 points, either way round"),
    number("top", kCoordinate, "the ground", "of its upper side"), kSlab};

constexpr Key kRampRows[] = {kId, kMaterial, kFrom, kTo, kWidth, kSlab};

constexpr Key kStairsRows[] = {
    kId,   kMaterial, kFrom,
    kTo,   kWidth,    whole("steps", {1.0, 1000.0, ""}, kMustBeGiven, "how many"),
    kSlab,
};

constexpr Key kMeshRows[] = {
    kId,
    kMaterial,
    other("file", Sort::text, kMustBeGiven, "an `.obj`, `.gltf` or `.glb` beside the level")
        .with("At most 200,000 triangles are read."),
    other("at", Sort::point3, "the origin", "where the file's origin is put"),
    number("turn", kTurn, 0.0, "about the vertical axis, anticlockwise"),
    number("scale", {0.0, 1e6, "", true}, 1.0, "times the lengths of the file"),
    word("up", "z|y", "OBJ z, else y", "which way is up in the file"),
};

constexpr Key kLinkRows[] = {
    kId,
    other("from", Sort::point3, kMustBeGiven, "three numbers in every plane"),
    other("to", Sort::point3, kMustBeGiven, "three numbers in every plane"),
    truth("both_ways", "whether it leads back as well"),
};

}  // namespace

constinit const KeyTable kWallKeys{"wall", "[[wall]]", "A wall along a path.",
                                   R"([[wall]]
id = "hedge"
material = "brick"
path = [[6.0, 0.0], [6.0, 5.0]]
height = 1.8
)",
                                   kWallRows};

constinit const KeyTable kBlockKeys{
    "block", "[[block]]",
    "A solid over a simple outline. In `upright` levels blocks are also what one stands on.",
    R"([[block]]
id = "crate"
material = "brick"
outline = [[9.0, 6.0], [10.0, 6.0], [10.0, 7.0], [9.0, 7.0]]
height = 1.0
health = 40.0
)",
    kBlockRows};

constinit const KeyTable kDoorKeys{
    "door", "[[door]]",
    "A wall that opens; its path is the leaf when it is shut. An open door is "
    "not there, and it never "
    "shuts on a body.",
    R"([[door]]
id = "shed-door"
material = "brick"
path = [[14.0, 6.0], [15.2, 6.0]]
opens_for = ["caretakers"]
)",
    kDoorRows};

constinit const KeyTable kFloorKeys{
    "floor", "[[floor]]",
    "Something to stand on above the ground. Floors, ramps and stairs belong "
    "in `ground` and `space` "
    "levels.",
    R"([[floor]]
id = "terrace"
material = "brick"
outline = [[14.0, 0.0], [20.0, 0.0], [20.0, 5.0], [14.0, 5.0]]
top = 1.5
)",
    kFloorRows};

constinit const KeyTable kRampKeys{"ramp", "[[ramp]]", "The two ends lie apart in the plan.",
                                   R"([[ramp]]
id = "way-up"
material = "brick"
from = [11.0, 1.0, 0.0]
to = [14.0, 1.0, 1.5]
width = 1.5
)",
                                   kRampRows};

constinit const KeyTable kStairsKeys{
    "stairs", "[[stairs]]",
    "For eyes, shots and sounds they are steps. Bodies climb them as a ramp "
    "through the middles of the "
    "steps.",
    R"([[stairs]]
id = "steps"
material = "brick"
from = [11.0, 4.0, 0.0]
to = [14.0, 4.0, 1.5]
width = 1.2
steps = 8
)",
    kStairsRows};

constinit const KeyTable kMeshKeys{
    "mesh", "[[mesh]]",
    "Triangles from a file, in `ground` and `space` levels. Each stops as a "
    "shell of 2 cm behind its "
    "front, which is where its corners run anticlockwise. The inside of a "
    "closed mesh is hollow. What faces "
    "up is walked on like any slope.",
    R"([[mesh]]
id = "rockery"
material = "brick"
file = "rockery.obj"
at = [18.0, 9.0, 0.0]
)",
    kMeshRows};

constinit const KeyTable kLinkKeys{
    "link", "[[link]]",
    "A way that no walk is: a ladder, a lift. Bodies go straight up first and "
    "then level, or level first "
    "and then straight down, at their speed. Each end may lie a body's width "
    "off a place where one can stand.",
    R"([[link]]
id = "ladder"
from = [17.0, 5.4, 0.0]
to = [17.0, 4.6, 1.5]
both_ways = true
)",
    kLinkRows};

}  // namespace gaze
