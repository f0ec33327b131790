using DeepBaize.Core.Advice.Decide;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using DeepBaize.Core.Work;
using static DeepBaize.Benchmarks.FrameQuality;

namespace DeepBaize.Benchmarks;

/// <summary>
/// Choices of the advice held to play-outs by the quick advice: what the first line of <em>Decide</em> loses against the best of the
/// lines offered, and whether the break-off wins more frames than a roll up to the pack.
/// </summary>
internal static class FrameRegret
{
    private static readonly TableShape Shape = new(Conditions.Default);

    /// <summary>Number of strokes for which a line is played on before the table is valued.</summary>
    private const int Depth = 6;

    private const int MostLines = 8;

    /// <summary>
    /// Plays each line of <em>Decide</em> on, from ten tables without an easy pot and ten open ones. Half of the play-outs find the best
    /// line; the others report on it and on the one that was offered first, with the same errors.
    /// </summary>
    /// <param name="playouts">Number of play-outs of each line for each half.</param>
    public static void Run(string path, string skill, int playouts)
    {
        var player = Player.OfSkill(skill);
        var regrets = new List<(double Regret, double Error)>();
        foreach (var from in Tables())
        {
            var decision = Decider.Solve(from, player, player, Shape);
            List<Played> lines = [.. decision.Prospects.Take(MostLines).Select(p => LineOf(p, from))];
            if (lines.Count < 2)
                continue;
            var values = lines.ConvertAll(line => PlayedOut(line, player, 2 * playouts));
            double Mean(int line, int half) => values[line].Skip(half * playouts).Take(playouts).Average();
            var best = Enumerable.Range(0, lines.Count).MaxBy(i => Mean(i, 0));
            List<double> differences = [.. values[best].Zip(values[0], (b, f) => b - f).Skip(playouts)];
            var mean = differences.Average();
            var error = Math.Sqrt(differences.Sum(d => (d - mean) * (d - mean)) / playouts / (playouts - 1));
            var point = new FrameObjective(0, player, player).Point;
            regrets.Add((mean / point, error / point));
            var (first, winner) = (decision.Prospects[0].Id, decision.Prospects[best].Id);
            Console.Error.WriteLine(Invariant($"{regrets.Count}: {first} / {winner}: {mean / point:F2} ± {error / point:F2}"));
        }
        var n = regrets.Count;
        var (regret, doubt) = (regrets.Average(r => r.Regret), Math.Sqrt(regrets.Sum(r => r.Error * r.Error)) / n);
        List<string> rows =
        [
            "| skill | tables | play-outs of each line | regret of the first line, points ± error | largest |",
            "|---|---|---|---|---|",
            Invariant($"| {skill} | {n} | {playouts} | {regret:F1} ± {doubt:F1} | {regrets.Max(r => r.Regret):F0} |"),
        ];
        rows.ForEach(Console.WriteLine);
        DocTable.Write(path, $"frame-regret-{skill}", rows);
    }

    /// <summary>Ten tables without an easy pot, and ten open ones.</summary>
    public static List<Situation> Tables() =>
        [
            .. SafetyQuality.Exchanges(Shape).Take(5),
            .. SafetyQuality.NearCushions(Shape).Take(5),
            .. BreakPositions.OpenTables(Shape).Take(10),
        ];

    /// <summary>Returns the stroke of a line of <em>Decide</em>.</summary>
    public static Played LineOf(Prospect prospect, Situation from) =>
        prospect switch
        {
            { Attack: { } a } => new(from, a.Choice.Stroke, a.Choice.Nominated, a.Choice.Pot),
            { Safety: { } s } => new(from, s.Aim.Stroke, s.Aim.Ball, null),
            _ => new(from, prospect.Escape!.Aim.Stroke, prospect.Escape.Aim.Ball, null),
        };

    /// <summary>The chance to win of the player at the table, by each play-out; play-out i has the same errors for every line.</summary>
    public static double[] PlayedOut(Played line, Player player, int count)
    {
        var me = line.From.Frame.Turn;
        return
        [
            .. ParallelEnumerable
                .Range(0, count)
                .AsOrdered()
                .WithDegreeOfParallelism(Environment.ProcessorCount)
                .Select(i =>
                {
                    var (random, advice) = (new Random(4000 + i), new QuickAdvice(Shape, PlanTarget.Frame));
                    var next = FramePlay.PlayStroke(line, player, Shape, random);
                    for (var k = 1; k < Depth && !next.Frame.IsOver; k++)
                    {
                        if (next.Frame.AwaitsLot)
                            next = next.PlaysFirst(random.Next(2));
                        if (advice.Choose(next, player, player) is not { } chosen)
                            break;
                        next = FramePlay.PlayStroke(chosen, player, Shape, random);
                    }
                    var objective = new FrameObjective(me, player, player);
                    if (next.Frame.IsOver)
                        return objective.Terminal(next.Frame);
                    var judge = new PositionJudge(me, player, player, Shape, PlanPreferences.Default);
                    return objective.Of(next.Frame, next.Frame.AwaitsLot ? Outlook.Nothing : judge.Of(next, new(next.Layout, Shape)));
                }),
        ];
    }

    /// <summary>Frames begun by the best break-off and by the best roll up to the pack, both gone on with by the quick advice.</summary>
    public static void Opening(string path, string skill, int frames)
    {
        var player = Player.OfSkill(skill);
        var from = FrameQuality.BreakOff(0);
        var context = new SearchContext(new(from.Frame, player, Shape, PlanPreferences.Default), FairGate.Shared, default);
        var breakOff = Decider.Solve(from, player, player, Shape).Safeties[0].Aim;
        var strokes = new SafetyStrokes(context);
        var workspace = new Workspace(context);
        var rollUp = strokes
            .Ways(from)
            .SelectMany(w => strokes.Play(workspace, from, w.Slot, w.Offset))
            .Where(t => t.Played.Ruling.Points == 0 && PlainIdeas.Of(t) == PlainIdea.RollUp)
            .OrderByDescending(t => t.Value)
            .Take(24)
            .MaxBy(t => strokes.MeanOf(workspace, from, t.Stroke, null, ErrorStream.Named("opening: choose"), 32))!;
        List<string> rows =
        [
            "| skill | opened by | frames | opener wins ± error | leaves a pot | the other scores at once | his safety leaves a pot |",
            "|---|---|---|---|---|---|---|",
        ];
        foreach (var (name, stroke) in ((string, Stroke)[])[("the break-off", breakOff.Stroke), ("a roll up to the pack", rollUp.Stroke)])
        {
            var played = ParallelEnumerable
                .Range(0, frames)
                .WithDegreeOfParallelism(Environment.ProcessorCount)
                .Select(i =>
                {
                    FramePolicy policy = new QuickAdvice(Shape, PlanTarget.Frame);
                    var next = FramePlay.PlayStroke(new(from, stroke, null, null), player, Shape, new Random(9000 + i));
                    return FramePlay.Play(next, [policy, policy], [player, player], Shape, 9500 + i);
                })
                .Where(f => f.Winner >= 0 && f.Moments.Count > 1)
                .ToList();
            var share = played.Count(f => f.Winner == 0) / (double)played.Count;
            var error = Math.Sqrt(share * (1 - share) / played.Count);
            // What the other player finds, what he makes of it, and how well he leaves it.
            string Percent(IEnumerable<Moment> of, Func<Moment, bool> counts)
            {
                var list = of.ToList();
                return Invariant($"{100.0 * list.Count(counts) / Math.Max(1, list.Count):F0} % of {list.Count}");
            }
            var replies = played.ConvertAll(f => f.Moments[0]);
            var afterSafety = played.Where(f => f.Moments[0] is { Played: MomentKind.Safety, IsFoul: false }).Select(f => f.Moments[1]);
            rows.Add(
                Invariant($"| {skill} | {name} | {played.Count} | {100 * share:F0} ± {100 * error:F0} % ")
                    + $"| {Percent(replies, m => m.Chance >= 0.5)} | {Percent(replies, m => m.Points > 0)} "
                    + $"| {Percent(afterSafety, m => m.Chance >= 0.5)} |"
            );
            Console.WriteLine(rows[^1]);
        }
        DocTable.Write(path, $"opening-{skill}", rows);
    }
}
