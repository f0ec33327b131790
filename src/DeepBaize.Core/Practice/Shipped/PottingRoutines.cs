using static DeepBaize.Core.Practice.Shipped.Laying;
using MeantPot = DeepBaize.Core.Strokes.MeantPot;

namespace DeepBaize.Core.Practice.Shipped;

/// <summary>Pots alone, where only the hole counts.</summary>
internal static class PottingRoutines
{
    public static IEnumerable<ShippedRoutine> All()
    {
        MeantPot top = new("red-1", "green-top");
        yield return new(
            "long-pots",
            new()
            {
                Name = "Long pots",
                Family = RoutineFamily.Potting,
                Task = "From baulk into a top pocket: straight, at a slight angle, and from the D.",
                Why =
                    "Most frames begin with one. A long pot shows every fault of the cue, and a touch of side that nobody meant throws it "
                    + "thick or thin.",
                LookFor = "Which way it missed: always the same way is aim, both ways is cueing.",
                Order = StepOrder.Rounds,
                Attempts = 10,
                BothSides = true,
                Steps =
                [
                    Long("nearly straight", 0.6, 0.55, 2.0, 1.05),
                    Long("slight angle", 0.65, 0.9, 2.1, 1.25),
                    Long("from the D", 0.7, 0.7, 2.45, 1.0),
                ],
            }
        );
        yield return new(
            "thin-pots",
            new()
            {
                Name = "Thin pots",
                Family = RoutineFamily.Potting,
                Task = "Ever thinner from half a metre, and each miss is named: too thick or too thin.",
                Why =
                    "Thinner than half-ball the white's middle misses the red altogether, and the eye has nothing to aim at. Knowing which "
                    + "way you err is half of the cure.",
                LookFor = "Edge to edge; and say thick or thin before the red has stopped.",
                Attempts = 10,
                BothSides = true,
                Steps =
                [
                    Thin("cut of 50°", 2.691, 0.877, 3.5),
                    Thin("cut of 60°", 2.675, 0.783, 3.75),
                    Thin("cut of 68°", 2.674, 0.706, 4),
                ],
            }
        );

        static Step Thin(string label, double x, double y, double pace) =>
            new()
            {
                Label = label,
                Balls = [White(x, y), At("red-1", 3.245, 0.689)],
                Stroke = new(Pace: pace, Pot: new("red-1", "yellow-top")),
                Demands = [Pot],
            };

        Step Long(string label, double x, double y, double redX, double redY) =>
            new()
            {
                Label = label,
                Balls = [White(x, y), At("red-1", redX, redY)],
                Stroke = new(Pace: 4, Pot: top),
                Demands = [Pot],
            };
    }
}
