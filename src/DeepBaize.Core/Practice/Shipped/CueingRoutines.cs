using DeepBaize.Core.Table;
using static DeepBaize.Core.Practice.Shipped.Laying;

namespace DeepBaize.Core.Practice.Shipped;

/// <summary>Straightness, and the pace of a plain ball.</summary>
internal static class CueingRoutines
{
    /// <summary>From the middle of a cue, some 11 mm thick there, to that of a red that leaves 4 mm beside it, m.</summary>
    private const double BesideCue = Dimensions.BallRadius + 0.0055 + 0.004;

    /// <summary>A red that comes back no farther beside the line than this was met full, m.</summary>
    private const double BackWithin = 0.12;

    private static readonly IReadOnlyList<LaidBall> Alone = [White(Dimensions.BaulkLineX, Dimensions.Width / 2)];

    public static IEnumerable<ShippedRoutine> All()
    {
        yield return new(
            "height",
            new()
            {
                Name = "Height",
                Family = RoutineFamily.Pace,
                Task = "A plain ball up the table and back, always at one pace: it must stop at the same place.",
                Why =
                    "Before any pace can be chosen, one must be repeated. The ball tells how evenly the cue went through: its stopping "
                    + "places should lie close together, and on the line it started from.",
                LookFor = "The same length of backswing each time, and the pause at its end.",
                Steps = [.. new[] { 2.5, 3.5 }.Select(p => Plain(p, 0.25))],
                Attempts = 10,
            }
        );
        yield return new(
            ShippedRoutines.PaceScale,
            new()
            {
                Name = "Pace scale",
                Family = RoutineFamily.Pace,
                Task = "One plain ball from the brown's spot at pace 2, 3, 4 and so on: each has its own stretch of the table.",
                Why =
                    "Everybody has a scale of paces; here yours is measured. Where the ball stops says what your three and your five are, "
                    + "and how far apart your steps lie.",
                LookFor = "Name the pace before the stroke, and change the backswing, not the grip.",
                Steps = [.. Enumerable.Range(2, 8).Select(p => Plain(p, 0.18 + 0.05 * p))],
                Order = StepOrder.Rounds,
                Attempts = 3,
            }
        );
        yield return new(
            "straight-gate",
            new()
            {
                Name = "Through the gate",
                Family = RoutineFamily.Cueing,
                Task = "From the brown's spot over the blue's, through two reds that leave a cue's width beside the ball.",
                Why =
                    "A straight stroke is the ground of all others. The gate shows what the eye passes over: which post is clipped says to "
                    + "which side the cue runs off.",
                LookFor = "The tip finishes on the line, and the chin stays down until the ball is through.",
                Steps =
                [
                    .. new[] { 1.5, 2.0, 2.5 }.Select(x => new Step
                    {
                        Label = $"gate at {x:0.0} m",
                        Balls = [.. Alone, At("red-1", x, Dimensions.Width / 2 - Post), At("red-2", x, Dimensions.Width / 2 + Post)],
                        Stroke = new(Height: 0.3, Pace: 4),
                        Demands =
                        [
                            new()
                            {
                                Kind = DemandKind.Gate,
                                Ball = "red-1",
                                Other = "red-2",
                            },
                        ],
                    }),
                ],
                Attempts = 10,
            }
        );
        yield return new(
            "bare-cue",
            new()
            {
                Name = "The bare cue",
                Family = RoutineFamily.Cueing,
                Task = "Without a ball: the cue goes between two reds that leave 4 mm on either side of it, and touches neither.",
                Why =
                    "Before a ball can say anything the cue must go straight by itself. A red that is touched says to which side it runs "
                    + "off, and whether on the way back or on the way through.",
                LookFor = "The cue goes through to its full length and stays on its line; nothing moves but the forearm.",
                Steps =
                [
                    new()
                    {
                        Label = "through the gate",
                        Balls =
                        [
                            White(Dimensions.BaulkLineX, Dimensions.Width / 4),
                            At("red-1", Dimensions.BaulkLineX, Dimensions.Width / 2 - BesideCue),
                            At("red-2", Dimensions.BaulkLineX, Dimensions.Width / 2 + BesideCue),
                        ],
                        Demands = [new() { Kind = DemandKind.NoSide }],
                    },
                ],
                Attempts = 20,
            }
        );
        yield return new(
            "straight-tip",
            new()
            {
                Name = "Back on to the tip",
                Family = RoutineFamily.Cueing,
                Task = "Up the table over the spots and back on to the tip, which is left where it finished.",
                Why =
                    "The ball is a measuring instrument: side that nobody meant turns it off the top cushion, and it comes back beside the "
                    + "tip on the side that was struck.",
                LookFor = "On which side it comes back: that is where the tip met the ball.",
                Steps =
                [
                    new()
                    {
                        Label = "over the spots",
                        Balls = Alone,
                        Stroke = new(Height: 0.3, Pace: 4),
                        Demands = [new() { Kind = DemandKind.BackOnTip, Within = 0.03 }, new() { Kind = DemandKind.NoSide }],
                    },
                ],
                Attempts = 20,
            }
        );
        yield return new(
            "red-back-to-white",
            new()
            {
                Name = "Red back to the white",
                Family = RoutineFamily.Cueing,
                Task = "A red on the blue's spot, full in the face: off the top cushion and back to the white, which has stopped dead.",
                Why =
                    "The red is a measuring instrument: hit a hair's breadth off full, it comes back beside the white. On which side says "
                    + "where the white met it.",
                LookFor = "The white stands still, and the red comes back on to it.",
                Steps =
                [
                    new()
                    {
                        Label = "off the top cushion",
                        Balls = [.. Alone, At("red-1", Dimensions.Length / 2, Dimensions.Width / 2)],
                        Stroke = new(Height: -0.25, Pace: 5),
                        Demands =
                        [
                            new() { Kind = DemandKind.MeetsFirst, Ball = "red-1" },
                            new()
                            {
                                Kind = DemandKind.BallIn,
                                Area = Area.Box(
                                    0,
                                    Dimensions.Width / 2 - BackWithin,
                                    Dimensions.Length / 2 + BackWithin,
                                    Dimensions.Width / 2 + BackWithin
                                ),
                            },
                        ],
                    },
                ],
                Attempts = 10,
            }
        );
        const double tight = Dimensions.BallRadius + 0.0005;
        yield return new(
            "straight-cushion",
            new()
            {
                Name = "Along the cushion",
                Family = RoutineFamily.Cueing,
                Task = "A ball tight on the side cushion is potted along it, and the white stays on the cushion.",
                Why =
                    "Both balls show the line: if the white leaves the cushion, it was struck off the middle, or the red was met off its "
                    + "middle.",
                LookFor = "Aim along the cushion's edge, bridge on the rail, butt as level as it goes.",
                Steps =
                [
                    new()
                    {
                        Label = "0.85 m between",
                        Balls = [White(1.92, tight), At("red-1", 2.77, tight)],
                        Stroke = new(Height: -0.6, Pace: 4, Pot: new("red-1", "yellow-top")),
                        Demands =
                        [
                            Pot,
                            new()
                            {
                                Kind = DemandKind.WhiteOnCushion,
                                Cushion = "yellow-side",
                                Within = 0.03,
                            },
                        ],
                    },
                ],
                Attempts = 10,
                BothSides = true,
            }
        );
    }

    /// <summary>From the middle of the gate to a post's: beside a ball in its middle there is half a cue's width.</summary>
    private const double Post = 0.06;

    private static Step Plain(double pace, double radius)
    {
        MeantStroke stroke = new(Height: 0.3, Pace: pace);
        var stop = Stops(Alone, stroke);
        return new()
        {
            Label = $"pace {pace:0.#}",
            Balls = Alone,
            Stroke = stroke,
            Demands = [WhiteIn(Across(Math.Round(stop.X - radius, 3), Math.Round(stop.X + radius, 3)))],
        };
    }
}
