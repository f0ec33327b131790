using DeepBaize.Core.Table;
using static DeepBaize.Core.Practice.Shipped.Laying;
using MeantPot = DeepBaize.Core.Strokes.MeantPot;

namespace DeepBaize.Core.Practice.Shipped;

/// <summary>Where the white goes after an angled pot: zones, a gate, other balls, the pack.</summary>
internal static class PositionRoutines
{
    public static IEnumerable<ShippedRoutine> All()
    {
        LaidBall[] blue = [White(1.6, 1.25), OnSpot(Ball.Blue)];
        MeantPot middle = new("blue", "yellow-middle");
        yield return new(
            "zones",
            new()
            {
                Name = "Zones",
                Family = RoutineFamily.Position,
                Task = "The blue into the middle pocket, and the white into a named circle: by the pink, by the black, back up the table.",
                Why =
                    "Position is a place, not a direction. From one angle three places are played in turn, so that height and pace are "
                    + "chosen anew for each.",
                LookFor = "Picture where it stops before going down; then judge only whether it came short or long.",
                Order = StepOrder.Rounds,
                Attempts = 6,
                BothSides = true,
                Steps =
                [
                    .. new[] { ("by the pink", -0.5, 2.8), ("by the black", -0.2, 3.0), ("beyond the centre line", -1.1, 3.6) }.Select(z =>
                    {
                        MeantStroke stroke = new(Height: z.Item2, Pace: z.Item3, Pot: middle);
                        return new Step
                        {
                            Label = z.Item1,
                            Balls = blue,
                            Stroke = stroke,
                            Demands = [Pot, WhiteIn(AboutStop(blue, stroke, 0.17))],
                        };
                    }),
                ],
            }
        );
        yield return new(
            "gate-after-pot",
            new()
            {
                Name = "Pot, and through the gap",
                Family = RoutineFamily.Position,
                Task = "The black off its spot, and off the top cushion the white goes between the two reds.",
                Why = "The line has to be known as well as the end of it: a gap that is missed is a kiss.",
                LookFor = "Which red is clipped: too high on the ball passes on the one side, too low on the other.",
                Attempts = 10,
                BothSides = true,
                Steps =
                [
                    new()
                    {
                        Label = "two reds, 0.25 m apart",
                        Balls = [White(2.9, 1.25), OnSpot(Ball.Black), At("red-1", 2.6, 0.75), At("red-2", 2.6, 1.0)],
                        Stroke = new(Height: 0.5, Pace: 4.6, Pot: new("black", "yellow-top")),
                        Demands =
                        [
                            Pot,
                            new()
                            {
                                Kind = DemandKind.Gate,
                                Ball = "red-1",
                                Other = "red-2",
                            },
                        ],
                    },
                ],
            }
        );
        yield return new(
            "cannons",
            new()
            {
                Name = "Cannons that help",
                Family = RoutineFamily.Position,
                Task = "The pot, and the white runs gently on to a second ball.",
                Why =
                    "A ball can stop the white in place, or be nudged over a pocket. Many players avoid every cannon, and make the break "
                    + "harder by it.",
                LookFor = "Meet it about half-ball and slowly; a full contact leaves the white behind it.",
                Order = StepOrder.Rounds,
                Attempts = 8,
                BothSides = true,
                Steps =
                [
                    new()
                    {
                        Label = "off the blue, on to the red",
                        Balls = [.. blue, At("red-1", 2.55, 0.62)],
                        Stroke = new(Height: 0.5, Pace: 3.4, Pot: middle),
                        Demands = [Pot, RunsInto("red-1")],
                    },
                    new()
                    {
                        Label = "screw on to the red by the black",
                        Balls = [White(2.6, 1.05), At("red-1", 3.0, 0.7), At("red-2", 3.3, 1.08)],
                        Stroke = new(Height: -0.45, Pace: 5.8, Pot: new("red-1", "yellow-top")),
                        Demands = [Pot, RunsInto("red-2")],
                    },
                ],
            }
        );
        LaidBall[] pack = [.. Rack.Pack().Select(LaidBall.Of)];
        yield return new(
            "into-the-pack",
            new()
            {
                Name = "Into the pack",
                Family = RoutineFamily.Position,
                Task = "A colour, and the white into the reds.",
                Why =
                    "A pack opens once, and early, while there is something else to fall back on. Follow from high on the black has to be "
                    + "slow enough to bend into it.",
                LookFor = "How full the pack is met and how many reds come out; not how hard.",
                Order = StepOrder.Rounds,
                Attempts = 5,
                BothSides = true,
                Steps =
                [
                    new()
                    {
                        Label = "from high on the black",
                        Balls = [White(3.03, 1.12), OnSpot(Ball.Black), OnSpot(Ball.Pink), .. pack],
                        Stroke = new(Height: 0.8, Pace: 3.8, Pot: new("black", "yellow-top")),
                        Demands = [Pot, RunsInto()],
                    },
                    new()
                    {
                        Label = "off the blue",
                        Balls = [White(1.55, 1.18), OnSpot(Ball.Blue), OnSpot(Ball.Pink), .. pack],
                        Stroke = new(Height: -0.4, Pace: 5, Pot: middle),
                        Demands = [Pot, RunsInto()],
                    },
                ],
            }
        );
    }
}
