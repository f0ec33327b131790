using System.Globalization;
using DeepBaize.Core.Advice.Break;
using DeepBaize.Core.Advice.Decide;
using DeepBaize.Core.Advice.Escape;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using DeepBaize.Core.Work;

namespace DeepBaize.Benchmarks;

/// <summary>
/// What is told against what comes of it when it is played with plain random errors, independent of all that told it:
/// <c>dotnet run -c Release --project bench/DeepBaize.Benchmarks -- told</c>. A few minutes.
/// </summary>
public static class ToldQuality
{
    private const int Plays = 400,
        Breaks = 96,
        Tables = 10;

    private static readonly TableShape Shape = new(Conditions.Default);

    /// <summary>A figure as told, and as played, with the error of each.</summary>
    private readonly record struct Pair(Estimate Told, double Played, double Error);

    /// <param name="only">The row to make, by its name; all if it is empty.</param>
    public static void Run(string path, string only = "")
    {
        var lines = new List<string>
        {
            "| figure | skill | cases | told, mean | played, mean | told − played | its error | r.m.s. | r.m.s. in standard errors |",
            "|---|---|---|---|---|---|---|---|---|",
        };
        foreach (var skill in (string[])["county", "club"])
        {
            var player = Player.OfSkill(skill);
            foreach (
                var (what, pairs) in ((string, Func<Player, List<Pair>>)[])
                    [("chance read", Chances), ("points of a plan", Values), ("pot left by a safety", PotsLeft), ("hit by an escape", Hits)]
            )
            {
                if (only != "" && only != what)
                    continue;
                lines.Add(Row(what, skill, pairs(player)));
                Console.WriteLine(lines[^1]);
            }
        }
        if (only == "")
            DocTable.Write(path, "told", lines);
    }

    private static string Row(string what, string skill, List<Pair> pairs)
    {
        var off = pairs.Select(p => p.Told.Value - p.Played).ToList();
        var error = Math.Sqrt(pairs.Sum(p => p.Error * p.Error + p.Told.Error * p.Told.Error)) / pairs.Count;
        var inErrors = Math.Sqrt(
            pairs.Average(p => Math.Pow(p.Told.Value - p.Played, 2) / (p.Error * p.Error + p.Told.Error * p.Told.Error))
        );
        return string.Create(
            CultureInfo.InvariantCulture,
            $"| {what} | {skill} | {pairs.Count} | {pairs.Average(p => p.Told.Value):0.000} | {pairs.Average(p => p.Played):0.000} "
                + $"| {off.Average():+0.000;-0.000} | {error:0.000} | {Math.Sqrt(off.Average(o => o * o)):0.000} | {inErrors:0.0} |"
        );
    }

    private static Pair Share(Estimate told, int counted, int plays)
    {
        var share = (double)counted / plays;
        return new(told, share, Math.Sqrt(Math.Max(share * (1 - share), 0.25 / plays) / plays));
    }

    private static List<Pair> Chances(Player player)
    {
        var (pairs, random) = (new List<Pair>(), new Random(5));
        var (simulator, record) = (new Simulator(Shape), new ShotRecord());
        foreach (var (_, situation) in BreakPositions.All(Shape).Take(20))
            foreach (
                var option in TableReading
                    .Read(situation.Layout, new(0, 0, 0, Pace.Medium, player.NaturalElevation), player, Shape)
                    .Where(o => o.Chance.Value is > 0.05 and < 0.995 && o.Cut.Kind == PotKind.Direct)
                    .Take(8)
            )
            {
                var stroke = option.Stroke;
                var potted = 0;
                var scatter = Scatter.Of(situation.Layout, stroke, player.Skill.Times(option.Reach.ErrorFactor), Shape);
                for (var i = 0; i < Plays; i++)
                {
                    scatter.Error(StandardDraws.Draw(random)).Play(simulator, situation.Layout, stroke, record);
                    if (simulator.PocketOf(option.Cut.Pot.Slot) == option.Cut.Pocket)
                        potted++;
                }
                pairs.Add(Share(option.Chance, potted, Plays));
            }
        return pairs;
    }

    private static List<Pair> Values(Player player)
    {
        var pairs = new List<Pair>();
        foreach (var (_, situation) in BreakPositions.All(Shape).Where((_, i) => i % 3 == 0).Take(Tables))
        {
            var plans = BreakPlanner.Solve(situation, PlanPreferences.Default, player, Shape).Plans;
            if (plans.Count == 0)
                continue;
            var (context, first) = (
                new SearchContext(new(situation.Frame, player, Shape, PlanPreferences.Default), FairGate.Shared, default),
                plans[0].Shots[0].Choice
            );
            var search = new ShotSearch(context);
            var made = context.InParallel(Breaks, (workspace, k) =>
                (double)PlainBreak.Play(context, search, workspace, situation, first, 9000 + k).Points
            );
            var mean = made.Average();
            pairs.Add(
                new(plans[0].Prospect!.Points, mean, Math.Sqrt(made.Sum(m => (m - mean) * (m - mean)) / made.Count / (made.Count - 1)))
            );
        }
        return pairs;
    }

    /// <summary>
    /// Each leave is judged anew: any pot that goes in more often than not by a hundred plain strokes, at six paces and three heights.
    /// </summary>
    private static List<Pair> PotsLeft(Player player)
    {
        const int leaves = 32,
            each = 10;
        var (pairs, seed) = (new List<Pair>(), 6);
        foreach (var situation in SafetyQuality.Exchanges(Shape).Take(each).Concat(SafetyQuality.NearCushions(Shape).Take(each)))
            foreach (var safety in Decider.Solve(situation, player, player, Shape).Safeties.Take(1))
            {
                var scatter = Scatter.Of(situation.Layout, safety.Aim.Stroke, player.Skill.Times(safety.Aim.Reach.ErrorFactor), Shape);
                var first = seed += leaves;
                var left = ParallelEnumerable
                    .Range(0, leaves)
                    .Count(i =>
                    {
                        var random = new Random(first + i);
                        var (simulator, record) = (new Simulator(Shape), new ShotRecord());
                        scatter.Error(StandardDraws.Draw(random)).Play(simulator, situation.Layout, safety.Aim.Stroke, record);
                        var played = situation.Play(simulator, record, safety.Aim.Ball, Shape);
                        return played.Ruling.Points == 0 && !played.Ruling.NextFrame.IsOver && IsPotLeft(played.Leaves, player, random);
                    });
                pairs.Add(Share(safety.Odds.PotLeft, left, leaves));
            }
        return pairs;
    }

    private static bool IsPotLeft(Situation situation, Player player, Random random)
    {
        const int plays = 100;
        if (situation.Frame.InHand)
            return new PositionJudge(player, Shape).Of(situation, new(situation.Layout, Shape)).LeavesPot;
        // Whatever Read offers, plants and doubles too: not by the lines that the search itself has chosen by.
        var layout = situation.Layout;
        bool MayPlay(int slot) => situation.Frame.MayPlay(layout.Balls[slot].Ball);
        var pots = TableReading
            .Read(layout, new(0, 0, 0, Pace.Medium, player.NaturalElevation), player, Shape)
            .Where(o => o.Chance.Value > 0.1 && MayPlay(o.Cut.Pot.Slot) && MayPlay(o.Cut.Pot.Struck))
            .Take(5);
        foreach (var pot in pots)
        {
            var cut = pot.Cut;
            var trial = new PotTrial(situation.Layout, cut, Shape);
            foreach (var pace in Pace.Ladder(0.65, 3.2, 1.375))
                foreach (var height in (double[])[0, -0.7, 0.7])
                {
                    var stroke = new Stroke(cut.AimDegrees, 0, height, pace, 0);
                    var reach = Reach.Of(situation.Layout, stroke, player);
                    stroke = stroke with { ElevationDegrees = reach.ButtDegrees };
                    if (PotAim.Find(trial, cut, stroke, null, PotAim.Roughly) is not { } aim)
                        continue;
                    stroke = stroke with { AimDegrees = aim };
                    var scatter = Scatter.Of(situation.Layout, stroke, player.Skill.Times(reach.ErrorFactor), Shape, cut.Pot);
                    var potted = Potted(trial, stroke, scatter, random, plays);
                    // Of so many tries one may be lucky: what looks on is played again.
                    if (potted > plays / 2 && Potted(trial, stroke, scatter, random, 2 * plays) > plays)
                        return true;
                }
        }
        return false;
    }

    private static int Potted(PotTrial trial, Stroke stroke, Scatter scatter, Random random, int plays)
    {
        var potted = 0;
        for (var i = 0; i < plays; i++)
        {
            if (scatter.Error(StandardDraws.Draw(random)).Pots(trial, stroke))
                potted++;
        }
        return potted;
    }

    private static List<Pair> Hits(Player player)
    {
        var (pairs, random) = (new List<Pair>(), new Random(7));
        var (simulator, record) = (new Simulator(Shape), new ShotRecord());
        foreach (var situation in SafetyQuality.Snookers(Shape).Take(Tables))
            foreach (var escape in EscapeSearch.Solve(situation, player, player, Shape).Take(3))
            {
                var hits = 0;
                var scatter = Scatter.Of(situation.Layout, escape.Aim.Stroke, player.Skill.Times(escape.Aim.Reach.ErrorFactor), Shape);
                for (var i = 0; i < Plays; i++)
                {
                    scatter.Error(StandardDraws.Draw(random)).Play(simulator, situation.Layout, escape.Aim.Stroke, record);
                    if (Contacts.FirstSlot(record) is > 0 and var slot && situation.Frame.On.Includes(situation.Layout.Balls[slot].Ball))
                        hits++;
                }
                pairs.Add(Share(escape.Odds.Hit, hits, Plays));
            }
        return pairs;
    }
}
