using System.Globalization;
using DeepBaize.Core;
using DeepBaize.Core.Advice.Break;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using DeepBaize.Core.Work;
using DeepBaize.Data.Demo;
using DeepBaize.Data.Positions;

namespace DeepBaize.Benchmarks;

/// <summary>
/// How many strokes a figure takes against plain random numbers, for the same standard error, on the demo positions:
/// <c>dotnet run -c Release --project bench/DeepBaize.Benchmarks -- strokes</c>. A few minutes. Below 0.5 is the bar.
/// </summary>
public static class StrokesNeeded
{
    private const int Strokes = 256,
        Streams = 32,
        Breaks = 16,
        BreakStreams = 8;

    private static readonly TableShape Shape = new(Conditions.Default);

    public static void Run(string path)
    {
        var lines = new List<string>
        {
            "| position | skill | pot chance | share of plain strokes "
                + "| mean rest up the table, m | share | plan’s value, points | share |",
            "|---|---|---|---|---|---|---|---|",
        };
        foreach (var (name, _, content) in DemoPositions.All)
            foreach (var skill in (string[])["county", "club"])
                lines.Add(Row(name, content, skill));
        DocTable.Write(path, "strokes", lines);
        Console.WriteLine(string.Join('\n', lines));
    }

    private static string Row(string name, PositionContent content, string skill)
    {
        var question = QuestionOf(content, skill);
        var spreads = Enumerable
            .Range(0, Streams)
            .Select(s => Spread.Sample(question, Workers.Shared(), SpreadEffort.Of(Strokes), ErrorStream.Named($"strokes {s}"), false))
            .ToList();
        var rests = spreads.SelectMany(s => s.Rests).Select(r => r.X).ToList();
        var (pot, at) = (spreads.Average(s => s.Odds.Pot.Value), rests.Average());
        var potShare = Variance(spreads.Select(s => s.Odds.Pot.Value)) / (pot * (1 - pot) / Strokes);
        var restShare = Variance(spreads.Select(s => s.Mean.X.Value)) / (Variance(rests) / Strokes);
        var plan = PlanOf(content, skill);
        return string.Create(
            CultureInfo.InvariantCulture,
            $"| {name} | {skill} | {Share(question.Pot is null ? null : pot)} | {Figure(pot is < 0.005 or > 0.995 ? null : potShare)} "
                + $"| {at:0.00} | {Figure(restShare)} "
                + $"| {plan?.Value.ToString("0.0", CultureInfo.InvariantCulture) ?? "–"} | {Figure(plan?.Share)} |"
        );
    }

    private static string Share(double? share) => share is { } s ? string.Create(CultureInfo.InvariantCulture, $"{100 * s:0} %") : "–";

    private static string Figure(double? share) => share is { } s ? string.Create(CultureInfo.InvariantCulture, $"{s:0.00}") : "–";

    private static double Variance(IEnumerable<double> of)
    {
        var all = of.ToList();
        var mean = all.Average();
        return all.Sum(v => (v - mean) * (v - mean)) / (all.Count - 1);
    }

    private static SpreadQuestion QuestionOf(PositionContent content, string skill)
    {
        var layout = LayoutOf(content);
        var stroke = content.Stroke.ToStroke(Player.Default.NaturalElevation);
        Cut? cut = null;
        if (content.Stroke.Pot is { } pot && Ball.TryParse(pot.Ball, out var ball) && Pockets.TryParse(pot.Pocket, out var pocket))
        {
            var meant = Cut.Of(layout, new(layout.SlotOf(ball), pocket), Shape);
            if (meant.CanBeAimed && PotAim.Find(layout, meant, stroke, Shape) is { } aim)
                (cut, stroke) = (meant, stroke with { AimDegrees = aim });
        }
        return new(layout, stroke, cut, Skill.Named(skill), Shape);
    }

    private static Layout LayoutOf(PositionContent content) =>
        Layout.Create([.. content.Balls.Select(b => ((string?)b.Id, b.X, b.Y))], Shape);

    /// <summary>
    /// Of the first shot that the search chooses: mean value when played out, and the strokes that it takes without luck and by streams
    /// against those of plain breaks, the strokes that measure the luck counted in. Null if nothing is on.
    /// </summary>
    private static (double Value, double Share)? PlanOf(PositionContent content, string skill)
    {
        var on = content.Frame?.On is { } ball ? BallsOn.Named(ball, "on") : (BallOn?)null;
        Situation situation;
        try
        {
            situation = Situation.Create(LayoutOf(content), new() { On = on, Repeats = content.Frame?.Repeats ?? false });
        }
        catch (InputException)
        {
            // An exercise with balls that no frame has.
            return null;
        }
        var question = new SearchQuestion(situation.Frame, Player.OfSkill(skill), Shape, PlanPreferences.Default);
        var context = new SearchContext(question, FairGate.Shared, default);
        var search = new ShotSearch(context);
        if (search.Choose(situation, Effort.Later) is not [var first, ..])
            return null;
        var playouts = new Playouts(context, search, situation);
        var before = context.Examined;
        var even = context.InParallel(BreakStreams * Breaks, (workspace, k) =>
            playouts.Of(workspace, first, ErrorStream.Named($"breaks {k / Breaks}"), k % Breaks).Controlled
        );
        var strokes = context.Examined - before;
        var shots = 0;
        before = context.Examined;
        var plain = context.InParallel(BreakStreams * Breaks, (workspace, k) =>
        {
            var played = PlainBreak.Play(context, search, workspace, situation, first, k);
            Interlocked.Add(ref shots, played.Shots);
            return played.Value;
        });
        var plainStrokes = context.Examined - before + shots;
        var means = Enumerable.Range(0, BreakStreams).Select(s => even.Skip(s * Breaks).Take(Breaks).Average());
        return (even.Average(), Variance(means) / (Variance(plain) / Breaks) * strokes / plainStrokes);
    }
}
