using System.Globalization;
using DeepBaize.Core.Geometry;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;

namespace DeepBaize.Benchmarks;

/// <summary>
/// Holds the quick estimate of a pot to strokes played out, on random pots at a speed that surely gets there, and writes what it is off by
/// into docs/planning.md: <c>dotnet run -c Release --project bench/DeepBaize.Benchmarks -- quick</c>. A minute.
/// </summary>
internal static class QuickChances
{
    private const int Pots = 400,
        Strokes = 512;

    private static readonly TableShape Shape = new(Conditions.Default);

    public static void Run(string path)
    {
        var off = Skill.Presets.ToDictionary(s => s, _ => new List<double>());
        var random = new Random(31);
        while (off[Skill.Presets[0]].Count < Pots)
        {
            var (x, y) = (0.15 + 3.25 * random.NextDouble(), 0.1 + 1.55 * random.NextDouble());
            var white = new Vec2(x + 2.0 * (random.NextDouble() - 0.5), y + 1.4 * (random.NextDouble() - 0.5));
            var red = new PlacedBall(Ball.Red(1), x, y);
            if (!Shape.CanRest(white) || !Shape.CanRest(red.At) || red.Gap(white) < 0.05)
                continue;
            var layout = Layout.OfRest([new(Ball.White, white), red]);
            var lines = new PotLines(layout, Shape);
            foreach (var line in lines.Lines)
                if (
                    lines.From(line, white, Skill.Named("learner")) is { } pot
                    && pot.Cut.Degrees < 66
                    && Surely(layout, line) is { } surely
                )
                    foreach (var (skill, list) in off)
                        list.Add(
                            QuickChance.Of(line.Window, pot.Cut, pot.CueBallDistance, skill)
                                - Spread
                                    .Sample(
                                        new(layout, surely.Stroke, surely.Cut, skill, Shape),
                                        Workers.Shared(),
                                        SpreadEffort.Of(Strokes),
                                        outlines: false
                                    )
                                    .Odds.Pot.Value
                        );
        }
        List<string> table = ["| skill | random pots | mean | r.m.s. |", "|---|---|---|---|"];
        foreach (var (skill, list) in off)
            table.Add(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"| {skill.Name} | {list.Count} | {list.Average():+0.000;-0.000} | {Math.Sqrt(list.Average(o => o * o)):0.000} |"
                )
            );
        Console.WriteLine(string.Join('\n', table));
        DocTable.Write(path, "quick", table);
    }

    /// <summary>The plain stroke, half as fast again as the softest that gets the ball there.</summary>
    private static (Cut Cut, Stroke Stroke)? Surely(Layout layout, in PotLine line)
    {
        const double softest = 0.9,
            hardest = 4,
            surely = 1.4;
        var cut = Cut.Of(layout, new(line.Slot, line.Pocket), Shape);
        if (cut.Fault != CutFault.None)
            return null;
        var trial = new PotTrial(layout, cut, Shape);
        Stroke? At(double pace)
        {
            var stroke = new Stroke(cut.AimDegrees, 0, 0, pace, Player.Default.NaturalElevation);
            return PotAim.Find(trial, cut, stroke) is { } aim ? stroke with { AimDegrees = aim } : null;
        }
        foreach (var pace in Pace.Ladder(softest, hardest, 1.25))
            if (At(pace) is { } stroke && trial.Pots(stroke) && At(Pace.OfCueSpeed(surely * Pace.CueSpeed(pace))) is { } harder)
                return (cut, harder);
        return null;
    }
}
