using DeepBaize.Core.Table;
using static DeepBaize.Core.Practice.Shipped.Laying;

namespace DeepBaize.Core.Practice.Shipped;

/// <summary>Safety, escapes, and the black-ball game.</summary>
internal static class SafetyRoutines
{
    public static IEnumerable<ShippedRoutine> All()
    {
        var baulk = Across(0, Dimensions.BaulkLineX);
        yield return new(
            "safety-to-baulk",
            new()
            {
                Name = "Safety back to baulk",
                Family = RoutineFamily.Safety,
                Task = "Thin off a red at the black's end, and the white back behind the baulk line; the red stays up the table.",
                Why = "What matters first is where the red ends; the white in baulk, best on the cushion, is what makes it hard to answer.",
                LookFor = "How thin it was met: it decides the white's way home more than the pace.",
                Order = StepOrder.Rounds,
                Attempts = 10,
                BothSides = true,
                Steps =
                [
                    new()
                    {
                        Label = "off a red by the side",
                        Balls = [White(1.1, 1.2), At("red-1", 3.0, 0.55)],
                        Stroke = new(Aim: -20.3, Height: 0.2, Pace: 4.2),
                        Demands = [MeetsFirst("red-1"), WhiteIn(baulk), BallIn(Across(2.6, Dimensions.Length))],
                    },
                    new()
                    {
                        Label = "past the baulk colours",
                        Balls = [White(0.9, 0.6), At("red-1", 2.85, 1.2), OnSpot(Ball.Yellow), OnSpot(Ball.Green), OnSpot(Ball.Brown)],
                        Stroke = new(Aim: 9.6, Height: 0.2, Pace: 4),
                        Demands = [MeetsFirst("red-1"), WhiteIn(baulk), BallIn(Across(2.4, Dimensions.Length))],
                    },
                ],
            }
        );
        LaidBall[] black = [White(0.55, 0.75), OnSpot(Ball.Black)];
        yield return new(
            "black-ball",
            new()
            {
                Name = "Black-ball openings",
                Family = RoutineFamily.Safety,
                Task = "The re-spotted black from the D: to a side cushion and the white across, or up and down with the white behind.",
                Why = "A frame may hang on one stroke from hand. Which of the two openings is yours, the count will say.",
                LookFor = "How full the black is met: a little thick and it comes back over the middle.",
                Order = StepOrder.Rounds,
                Attempts = 10,
                BothSides = true,
                Steps =
                [
                    new()
                    {
                        Label = "both to a cushion",
                        Balls = black,
                        Stroke = new(Aim: 0.6, Pace: 5.8),
                        Demands =
                        [
                            MeetsFirst("black"),
                            new() { Kind = DemandKind.WhiteOnCushion, Within = 0.2 },
                            new() { Kind = DemandKind.BallOnCushion, Within = 0.2 },
                        ],
                    },
                    new()
                    {
                        Label = "the white home, the black up the table",
                        Balls = black,
                        Stroke = new(Aim: 1.6, Height: 0.2, Pace: 4),
                        Demands = [MeetsFirst("black"), WhiteIn(baulk), BallIn(Across(2.6, Dimensions.Length))],
                    },
                ],
            }
        );
        yield return new(
            "escapes",
            new()
            {
                Name = "Escapes",
                Family = RoutineFamily.Safety,
                Task = "Snookered, with no straight way: off one cushion, off two, off three.",
                Why =
                    "Every table's cushions differ a little, and a way out that was found once is kept by its family: from there, off that "
                    + "point of the cushion.",
                LookFor = "Where the white met the first cushion, and by how much it passed the ball.",
                Order = StepOrder.Rounds,
                Attempts = 5,
                BothSides = true,
                Steps = [.. new[] { (1, 3), (2, 2), (3, 1) }.Select(s => SnookerDraw.Of(s.Item2, s.Item1, Shape))],
            }
        );
    }
}
