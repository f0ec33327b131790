using System.Globalization;
using DeepBaize.Core.Advice.Break;
using DeepBaize.Core.Players;
using DeepBaize.Core.Table;

namespace DeepBaize.Benchmarks;

/// <summary>
/// Plays breaks by the planner's advice and by the plain policy, from the same positions and with the same errors, and writes the table of
/// docs/planning.md:
/// <c>dotnet run -c Release --project bench/DeepBaize.Benchmarks -- breaks</c>. About a quarter of an hour
/// on two cores that do nothing else.
/// </summary>
public static class BreakQuality
{
    private const int ColourBreaks = 20;

    private static readonly (string Skill, int Breaks)[] Skills = [("tour", 1), ("county", 1), ("club", 1)];

    public static void Run(string path)
    {
        var shape = new TableShape(Conditions.Default);
        var positions = BreakPositions.All(shape);
        var lines = new List<string>
        {
            "| skill | positions | breaks | planner: average ± error | median | cleared "
                + "| plain policy: average ± error | median | cleared | planner ÷ plain |",
            "|---|---|---|---|---|---|---|---|---|---|",
        };
        foreach (var (name, breaks) in Skills)
        {
            var player = Player.OfSkill(name);
            var played = new List<(string Kind, BreakResult Planner, BreakResult Plain)>();
            foreach (var (kind, situation) in positions)
                for (var i = 0; i < breaks; i++)
                    played.Add(
                        (
                            kind,
                            BreakAdvice.PlayBreak(situation, player, shape, 100 + i),
                            PlainPolicy.PlayBreak(situation, player, shape, 100 + i)
                        )
                    );
            lines.Add(Row(name, "all", breaks, played));
            foreach (var group in played.GroupBy(p => p.Kind))
                lines.Add(Row(name, group.Key, breaks, [.. group]));
            Console.WriteLine(string.Join('\n', lines.TakeLast(6)));
        }
        var random = new Random(7);
        var cleared = Enumerable
            .Range(0, ColourBreaks)
            .Count(i => BreakAdvice.PlayBreak(BreakPositions.Colours(random, shape), Player.OfSkill("tour"), shape, 500 + i).IsCleared);
        lines.Add("");
        lines.Add(
            "Colours on their spots, the white well placed for the yellow, tour: "
                + $"cleared {cleared} of {ColourBreaks} times ({100.0 * cleared / ColourBreaks:0} %)."
        );
        DocTable.Write(path, "breaks", lines);
        Console.WriteLine(lines[^1]);
    }

    private static string Row(
        string skill,
        string kind,
        int breaks,
        IReadOnlyList<(string Kind, BreakResult Planner, BreakResult Plain)> played
    )
    {
        var (planner, plain) = (Figures([.. played.Select(p => p.Planner)]), Figures([.. played.Select(p => p.Plain)]));
        return string.Create(
            CultureInfo.InvariantCulture,
            $"| {skill} | {kind} ({played.Count / breaks}) | {played.Count} "
                + $"| {planner.Average:0.0} ± {planner.Error:0.0} | {planner.Median:0} | {planner.Cleared:0} % "
                + $"| {plain.Average:0.0} ± {plain.Error:0.0} | {plain.Median:0} | {plain.Cleared:0} % "
                + $"| {planner.Average / plain.Average:0.0} |"
        );
    }

    private static (double Average, double Error, double Median, double Cleared) Figures(IReadOnlyList<BreakResult> breaks) =>
        (
            breaks.Average(b => b.Points),
            Math.Sqrt(breaks.Sum(b => Math.Pow(b.Points - breaks.Average(o => o.Points), 2)) / breaks.Count / (breaks.Count - 1)),
            breaks.Select(b => b.Points).Order().ElementAt(breaks.Count / 2),
            100.0 * breaks.Count(b => b.IsCleared) / breaks.Count
        );
}
