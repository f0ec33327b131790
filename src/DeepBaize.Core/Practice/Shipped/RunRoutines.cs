using DeepBaize.Core.Table;
using static DeepBaize.Core.Practice.Shipped.Laying;

namespace DeepBaize.Core.Practice.Shipped;

/// <summary>Runs, which end by themselves and have a score.</summary>
internal static class RunRoutines
{
    public static IEnumerable<ShippedRoutine> All()
    {
        IReadOnlyList<LaidBall> colours = [.. Ball.Colours.Select(OnSpot)];
        IReadOnlyList<LaidBall> line =
        [
            White(2.3, 0.6),
            .. colours,
            .. Line(2.0, 6, 0),
            .. Line(2.77, 5, 6),
            .. Line(3.34, 2, 11),
            .. Line(1.5, 2, 13),
        ];
        yield return new(
            "line-up",
            new()
            {
                Name = "Line-up",
                Family = RoutineFamily.Breaks,
                Task = "The reds in line through the colours, the white from hand: a red, any colour, a red, until one is missed.",
                Why =
                    "Many short pots in a row train the white more than the pot. Thirteen or fourteen balls make fifty; all of them with "
                    + "blacks are a 147.",
                LookFor = "Count the strokes of each kind: follow, stun, screw. A good run is mostly the first two.",
                Attempts = 5,
                Steps = [Run("to fifty", 50, line)],
            }
        );
        yield return new(
            "line-up-no-cushion",
            new()
            {
                Name = "Line-up, no cushion",
                Family = RoutineFamily.Breaks,
                Task = "The line-up, and the white may touch no cushion: the run ends with the first one it touches.",
                Why =
                    "Without a cushion the white can only be held by the tip and the pace. It teaches how little it has to move, and which "
                    + "ball is next to it.",
                LookFor = "Soft strokes, and a ball near by before every one of them.",
                Attempts = 5,
                Steps = [Run("to twenty", 20, line)],
            }
        );
        yield return new(
            "black-off-its-spot",
            new()
            {
                Name = "Black off its spot",
                Family = RoutineFamily.Breaks,
                Task = "The black again and again, from where the white stopped: towards two hundred points.",
                Why =
                    "One angle too steep and one too flat, and the white is out of place: the smallest circle of position there is, played "
                    + "until it breaks.",
                LookFor = "Keep an angle, high on the black, off the cushion.",
                Attempts = 5,
                Steps = [Run("to eight blacks", 56, [White(3.0, 1.1), OnSpot(Ball.Black)])],
            }
        );
        yield return new(
            "colours-in-order",
            new()
            {
                Name = "Colours in order",
                Family = RoutineFamily.Breaks,
                Task = "Yellow to black from their spots, the white from the D.",
                Why = "Most frames are won or lost on these six. Each asks for another angle on the next.",
                LookFor = "Do not run past the brown's line from the green; and come a little high on the blue.",
                Attempts = 8,
                Steps = [Run("all six", 27, [White(0.55, 0.75), .. colours])],
            }
        );
        yield return new(
            "last-red",
            new()
            {
                Name = "Last red to the colours",
                Family = RoutineFamily.Breaks,
                Task = "The last red, a colour that leads to the yellow, and then all six.",
                Why = "The last red decides the colours: which one is taken with it says where the white has to travel.",
                LookFor = "Choose the colour before the red is played.",
                Attempts = 8,
                Steps = [Run("red, a colour, and all six", 30, [White(2.35, 0.75), .. colours, At("red-1", 2.95, 0.55)])],
            }
        );
    }

    private static Step Run(string label, int points, IReadOnlyList<LaidBall> balls) =>
        new()
        {
            Label = label,
            Balls = balls,
            Demands = [Score(points)],
        };

    /// <summary>Reds in line on the long axis of the table, 0.1 m from middle to middle.</summary>
    private static IEnumerable<LaidBall> Line(double from, int count, int before) =>
        Enumerable.Range(0, count).Select(i => At($"red-{before + i + 1}", Math.Round(from + 0.1 * i, 3), Dimensions.Width / 2));
}
