using System.Globalization;
using DeepBaize.Core.Advice.Break;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Benchmarks;

/// <summary>
/// Plays breaks by the planner's advice and by the plain policy, from the same positions and with the same luck, and writes the tables of
/// docs/planning.md: <c>dotnet run -c Release --project bench/DeepBaize.Benchmarks -- breaks [skill …]</c>. An hour on two cores; with
/// skills named, only their rows are made, and only shown.
/// </summary>
/// <remarks>Named "open" before the skills, only the open tables are played, and only by advice: to fit the presets by.</remarks>
internal static class BreakQuality
{
    /// <summary>So many breaks from each of the 32 positions by the planner, and as many by the plain policy: 256 in all.</summary>
    private const int Breaks = 4;

    /// <summary>By another's advice fewer, of tour above all, whose breaks are long.</summary>
    private static int ByAnotherOf(string skill) => skill == "tour" ? 1 : 2;

    private static readonly TableShape Shape = new(Conditions.Default);

    /// <summary>A break with the strokes that were tried in it.</summary>
    private sealed record Played(string Kind, BreakResult Result, IReadOnlyList<Stroke> Strokes);

    public static void Run(string path, string[] how)
    {
        if (how is ["open", var count, .. var of])
        {
            foreach (var skill in of)
                Open(skill, int.Parse(count));
            return;
        }
        var skills = how.Length > 0 ? how : [.. Skill.Presets.Select(s => s.Name)];
        var positions = BreakPositions.All(Shape);
        var table = new List<string>
        {
            "| skill | positions | breaks | planner: average ± error | median | cleared "
                + "| plain policy: average ± error | median | cleared | planner ÷ plain |",
            "|---|---|---|---|---|---|---|---|---|---|",
        };
        var strokes = new List<string>
        {
            "| skill | strokes | mean pace | with side (over a quarter of a tip) | above pace 6 | screw (half a tip below or more) |",
            "|---|---|---|---|---|---|",
        };
        var others = new List<string>
        {
            "| who plays | by whose plans | breaks | average ± error | by his own, the same breaks | difference |",
            "|---|---|---|---|---|---|",
        };
        foreach (var name in skills)
        {
            var player = Player.OfSkill(name);
            var (planned, plain) = (new List<Played>(), new List<Played>());
            foreach (var (kind, from, seed) in Seeds(positions, Breaks))
            {
                planned.Add(ByAdvice(kind, from, player, player, seed));
                plain.Add(Watched(kind, watch => PlainPolicy.PlayBreak(from, player, Shape, seed, watch)));
            }
            var kinds = positions.Select(p => p.Kind).Distinct().ToList();
            foreach (var kind in kinds.Prepend("all"))
                table.Add(Row(name, kind, positions, planned, plain));
            strokes.Add(StrokesRow(name, planned));
            Console.WriteLine(string.Join('\n', table.TakeLast(kinds.Count + 1).Append(strokes[^1])));
            var another = name switch
            {
                "tour" => "club",
                "club" or "learner" => "tour",
                _ => null,
            };
            if (another is null)
                continue;
            var byAnother = Seeds(positions, ByAnotherOf(name))
                .Select(s => ByAdvice(s.Kind, s.From, player, Player.OfSkill(another), s.Seed))
                .ToList();
            others.Add(OthersRow(name, another, byAnother, planned, positions.Count));
            Console.WriteLine(others[^1]);
        }
        if (how.Length > 0)
            return;
        DocTable.Write(path, "breaks", table);
        DocTable.Write(path, "strokes played", strokes);
        DocTable.Write(path, "another's plans", others);
    }

    /// <summary>Four breaks a position means: all positions once, then all again, so that fewer breaks are the first of them.</summary>
    private static IEnumerable<(string Kind, Situation From, int Seed)> Seeds(
        IReadOnlyList<(string Kind, Situation From)> positions,
        int breaks
    ) => Enumerable.Range(0, breaks).SelectMany(i => positions.Select((p, k) => (p.Kind, p.From, 1000 * i + k)));

    private static Played ByAdvice(string kind, Situation from, Player player, Player adviceFor, int seed) =>
        Watched(kind, watch => BreakAdvice.PlayBreak(from, player, Shape, seed, adviceFor: adviceFor, watch: watch));

    private static Played Watched(string kind, Func<Action<Situation, Intention, Core.Play.PlayedStroke>, BreakResult> play)
    {
        var strokes = new List<Stroke>();
        return new(kind, play((_, intention, _) => strokes.Add(intention.Stroke)), strokes);
    }

    private static void Open(string skill, int breaks)
    {
        var player = Player.OfSkill(skill);
        var open = BreakPositions.OpenTables(Shape);
        var played = new List<Played>();
        for (var i = 0; i < breaks; i++)
        {
            played.Add(ByAdvice("open", open[i % open.Count], player, player, 5000 + i));
            Console.Error.Write($"{played[^1].Result.Points} ");
        }
        Console.Error.WriteLine();
        var figures = Figures(played);
        Console.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"{skill}: open tables, {breaks} breaks: {figures.Average:0.0} ± {figures.Error:0.0}, "
                    + $"median {figures.Median:0}, cleared {figures.Cleared:0} %"
            )
        );
        Console.WriteLine(StrokesRow(skill, played));
    }

    private static string Row(
        string skill,
        string kind,
        IReadOnlyList<(string Kind, Situation)> positions,
        IReadOnlyList<Played> planned,
        IReadOnlyList<Played> plain
    )
    {
        IReadOnlyList<Played> Of(IReadOnlyList<Played> all) => kind == "all" ? all : [.. all.Where(p => p.Kind == kind)];
        var (planner, policy) = (Figures(Of(planned)), Figures(Of(plain)));
        var from = kind == "all" ? positions.Count : positions.Count(p => p.Kind == kind);
        return string.Create(
            CultureInfo.InvariantCulture,
            $"| {skill} | {kind} ({from}) | {Of(planned).Count} "
                + $"| {planner.Average:0.0} ± {planner.Error:0.0} | {planner.Median:0} | {planner.Cleared:0} % "
                + $"| {policy.Average:0.0} ± {policy.Error:0.0} | {policy.Median:0} | {policy.Cleared:0} % "
                + $"| {planner.Average / policy.Average:0.0} |"
        );
    }

    private static string StrokesRow(string skill, IReadOnlyList<Played> breaks)
    {
        var strokes = breaks.SelectMany(b => b.Strokes).ToList();
        double Share(Func<Stroke, bool> of) => 100.0 * strokes.Count(of) / strokes.Count;
        return string.Create(
            CultureInfo.InvariantCulture,
            $"| {skill} | {strokes.Count} | {strokes.Average(s => s.Pace):0.00} | {Share(s => Math.Abs(s.SideTips) > 0.25):0} % "
                + $"| {Share(s => s.Pace > 6):0} % | {Share(s => s.HeightTips <= -0.5):0} % |"
        );
    }

    /// <summary>Plays equal positions with equal draws by two advices; reports the mean of the differences, with its own error.</summary>
    private static string OthersRow(string skill, string another, List<Played> byAnother, List<Played> own, int positions)
    {
        var differences = byAnother.Select((b, i) => (double)(own[i].Result.Points - b.Result.Points)).ToList();
        var mean = differences.Average();
        var error = Math.Sqrt(differences.Sum(d => (d - mean) * (d - mean)) / differences.Count / (differences.Count - 1));
        var figures = Figures(byAnother);
        return string.Create(
            CultureInfo.InvariantCulture,
            $"| {skill} | {another} | {byAnother.Count} | {figures.Average:0.0} ± {figures.Error:0.0} "
                + $"| {own.Take(byAnother.Count).Average(o => o.Result.Points):0.0} | {mean:+0.0;-0.0} ± {error:0.0} |"
        );
    }

    private static (double Average, double Error, double Median, double Cleared) Figures(IReadOnlyList<Played> breaks)
    {
        var points = breaks.Select(b => (double)b.Result.Points).Order().ToList();
        var mean = points.Average();
        return (
            mean,
            Math.Sqrt(points.Sum(p => (p - mean) * (p - mean)) / points.Count / (points.Count - 1)),
            points[points.Count / 2],
            100.0 * breaks.Count(b => b.Result.IsCleared) / breaks.Count
        );
    }
}
