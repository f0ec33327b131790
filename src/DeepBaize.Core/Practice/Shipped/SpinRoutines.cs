using DeepBaize.Core.Table;
using static DeepBaize.Core.Practice.Shipped.Laying;

namespace DeepBaize.Core.Practice.Shipped;

/// <summary>Stop, follow and screw, and the two ladders.</summary>
internal static class SpinRoutines
{
    private static readonly double[] Distances = [0.4, 0.8, 1.2];

    public static IEnumerable<ShippedRoutine> All()
    {
        yield return Straight(
            "stop",
            "Stop",
            [(-0.45, 4.2), (-0.75, 4.6), (-0.75, 5.4)],
            0.09,
            "A straight pot, and the white stops where the red was.",
            "Stun is the line that follow and screw are measured from. The farther the ball, the lower or the harder the stroke must be "
                + "for the white to arrive without spin.",
            "Low enough, and through the ball: a stab loses the spin on the way."
        );
        yield return Straight(
            "follow",
            "Follow",
            [(0.3, 2.8), (0.5, 2.8), (0.5, 2.9)],
            0.16,
            "A straight pot, and the white runs on into the circle.",
            "Follow is the easiest of the three to hold, if the ball is rolled and not hit. Where it stops is pace alone.",
            "Height stays the same; only the pace says how far."
        );
        yield return Straight(
            "screw",
            "Screw",
            [(-1.1, 4.4), (-1.1, 5.4), (-1.1, 6.2)],
            0.18,
            "A straight pot, and the white comes back into the circle.",
            "Screw asks for a low tip and a level cue more than for power, and most of it is lost on the way to the ball.",
            "Lower the bridge, not the tip alone; the butt stays down and the cue goes through."
        );
        // A pot into a middle pocket at a cut of 20°, and from follow to screw the white crosses a row 0.47 m beside it.
        LaidBall[] row = [.. Enumerable.Range(0, 6).Select(i => At($"red-{i + 2}", 2.25, Math.Round(0.432 + 0.112 * i, 3)))];
        LaidBall[] balls = [White(1.65, 1.07), At("red-1", 1.7845, 0.65), .. row];
        // The middles of the rungs' windows, as they were worked out: a test holds them to it.
        double[] heights = [0.97, 0.13, -0.34, -0.71, -0.99, -1.23];
        yield return new(
            "spin-ladder",
            Ladder(
                "Spin ladder",
                "height",
                [
                    .. row.Select(
                        (red, i) =>
                            new Step
                            {
                                Label = $"on to the {Ordinals[i]}",
                                Balls = balls,
                                Stroke = new(Height: heights[i], Pace: 4.4, Pot: new("red-1", "yellow-middle")),
                                Demands = [Pot, RunsInto(red.Id)],
                            }
                    ),
                ],
                "One pot, always at the same pace; the white is to run on to each red of the row in turn, by the tip's height alone.",
                "Half a tip of height moves the white by a ball or two. Whoever can go up and down this row has height as a knob of its "
                    + "own, apart from pace.",
                "Change the height by little, and nothing else: each rung has its own window."
            )
        );
        (double From, double To, double Pace, string Name)[] bands =
        [
            (2.92, 3.19, 2.98, "soft"),
            (2.28, 2.64, 3.97, "medium"),
            (1.72, 2.2, 4.54, "firm"),
            (1.05, 1.62, 5.08, "hard"),
        ];
        yield return new(
            "pace-ladder",
            Ladder(
                "Pace ladder",
                "pace",
                [
                    .. bands.Select(band => new Step
                    {
                        Label = band.Name,
                        Balls = [White(2.9, 1.25), OnSpot(Ball.Black)],
                        Stroke = new(Pace: band.Pace, Pot: new("black", "yellow-top")),
                        Demands = [Pot, WhiteIn(Across(band.From, band.To))],
                    }),
                ],
                "The black off its spot, always with the same tip; off the top cushion the white stops in one stretch after the other.",
                "The same strike at another pace ends somewhere else: this is the other knob. Soft and hard first, then the one between.",
                "Say the pace before the stroke, and see how far apart your steps lie."
            )
        );
    }

    private static readonly string[] Ordinals = ["first red", "second red", "third red", "fourth red", "fifth red", "sixth red"];

    private static Routine Ladder(string name, string knob, Step[] steps, string task, string why, string lookFor) =>
        new()
        {
            Name = name,
            Family = RoutineFamily.Spin,
            Task = task,
            Why = why,
            LookFor = lookFor,
            Steps = steps,
            Order = StepOrder.Ladder,
            Attempts = 3,
            BothSides = true,
            Knob = knob,
        };

    /// <summary>Straight into a top pocket, the red 0.9 m from it, at three distances of the white from the red.</summary>
    private static ShippedRoutine Straight(
        string id,
        string name,
        (double Height, double Pace)[] strokes,
        double radius,
        string task,
        string why,
        string lookFor
    )
    {
        var along = Angle.FromDegrees(35).Unit;
        var red = new Vec2(Dimensions.Length - 0.02, Dimensions.Width - 0.02) - 0.9 * along;
        return new(
            id,
            new()
            {
                Name = name,
                Family = RoutineFamily.Spin,
                Task = task,
                Why = why,
                LookFor = lookFor,
                Attempts = 10,
                BothSides = true,
                Steps =
                [
                    .. Distances.Select(
                        (distance, i) =>
                        {
                            var white = red - (distance + 2 * Dimensions.BallRadius) * along;
                            LaidBall[] balls =
                            [
                                White(Math.Round(white.X, 3), Math.Round(white.Y, 3)),
                                At("red-1", Math.Round(red.X, 3), Math.Round(red.Y, 3)),
                            ];
                            MeantStroke stroke = new(Height: strokes[i].Height, Pace: strokes[i].Pace, Pot: new("red-1", "green-top"));
                            return new Step
                            {
                                Label = $"{distance:0.0} m",
                                Balls = balls,
                                Stroke = stroke,
                                Demands = [Pot, WhiteIn(AboutStop(balls, stroke, radius))],
                            };
                        }
                    ),
                ],
            }
        );
    }
}
