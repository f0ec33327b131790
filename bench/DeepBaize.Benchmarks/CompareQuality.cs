using System.Diagnostics;
using DeepBaize.Core.Advice.Compare;
using DeepBaize.Core.Advice.Decide;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using static DeepBaize.Benchmarks.FrameQuality;

namespace DeepBaize.Benchmarks;

/// <summary>
/// Comparisons of two strokes held to play-outs of each: whether the verdict is the same, and how long the first answer and the last one
/// take.
/// </summary>
internal static class CompareQuality
{
    private static readonly TableShape Shape = new(Conditions.Default);

    /// <summary>
    /// Compares a pair of lines from each of twenty tables: the first line of <em>Decide</em> and one farther down its list.
    /// </summary>
    /// <param name="playouts">Number of play-outs of each line.</param>
    public static void Run(string path, string skill, int playouts)
    {
        var player = Player.OfSkill(skill);
        var (agree, apart, said) = (0, 0, 0);
        List<double> firsts = [],
            decided = [],
            lasts = [];
        var shares = new List<double>();
        List<string> rows =
        [
            "| table | strokes | compared, points ± error | errors of the two added | played out, points ± error | agree |",
            "|---|---|---|---|---|---|",
        ];
        foreach (var (from, i) in FrameRegret.Tables().Select((t, i) => (t, i)))
        {
            var decision = Decider.Solve(from, player, player, Shape);
            if (decision.Prospects.Count < 2)
                continue;
            var other = 1 + i % Math.Min(4, decision.Prospects.Count - 1);
            List<Played> lines = [.. new[] { 0, other }.Select(k => FrameRegret.LineOf(decision.Prospects[k], from))];
            var (first, own) = (0.0, 0.0);
            var watch = Stopwatch.StartNew();
            var progress = new Immediately(c =>
            {
                first = first == 0 && c.Columns.Count > 0 ? watch.Elapsed.TotalSeconds : first;
                own = own == 0 && c.Order.Count > 0 ? watch.Elapsed.TotalSeconds : own;
            });
            List<ComparedStroke> strokes = [.. lines.Select((l, k) => new ComparedStroke($"{k}", l.From, l.Stroke, l.Pot, l.Nominated))];
            var found = Comparer.Solve(strokes, player, player, Shape, progress: progress);
            firsts.Add(first);
            decided.Add(own);
            lasts.Add(watch.Elapsed.TotalSeconds);
            var point = new FrameObjective(0, player, player).Point;
            var between = found.Differences.Single(d => (d.Better, d.Other) is ("0", "1") or ("1", "0"));
            var by = between.Better == "0" ? between.By.Value : -between.By.Value;
            var added = found.Columns.Take(2).Sum(c => c.Value.Error);
            var values = lines.ConvertAll(line => FrameRegret.PlayedOut(line, player, playouts));
            List<double> differences = [.. values[0].Zip(values[1], (a, b) => a - b)];
            var mean = differences.Average();
            var error = Math.Sqrt(differences.Sum(d => (d - mean) * (d - mean)) / playouts / (playouts - 1));
            // Two verdicts contradict one another if both are apart, to opposite sides.
            var isApart = Math.Abs(mean) > 2 * error;
            var contradicts = isApart && !between.IsLevel && Math.Sign(mean) != Math.Sign(by);
            apart += isApart ? 1 : 0;
            said += !between.IsLevel ? 1 : 0;
            agree += contradicts ? 0 : 1;
            shares.Add(between.By.Error / added);
            rows.Add(
                Invariant($"| {i + 1} | {decision.Prospects[0].Id} / {decision.Prospects[other].Id} ")
                    + Invariant($"| {by / point:F1} ± {between.By.Error / point:F1}{(between.IsLevel ? ", level" : "")} ")
                    + Invariant($"| {added / point:F1} | {mean / point:F1} ± {error / point:F1} | {(contradicts ? "no" : "yes")} |")
            );
            Console.WriteLine(rows[^1]);
        }
        rows.AddRange([
            "",
            Invariant($"{agree} of {lasts.Count} agree ({skill}; {said} compared and {apart} played out are apart); ")
                + Invariant($"the error of a difference is {shares.Average():P0} of the two errors added. ")
                + Invariant($"First answer {firsts.Average():F2} s on the average, {firsts.Max():F2} s at the most; ")
                + Invariant($"your own strokes decided {decided.Average():F1} s, {decided.Max():F1} s; ")
                + Invariant($"with the advice {lasts.Average():F1} s, {lasts.Max():F1} s."),
        ]);
        Console.WriteLine(rows[^1]);
        DocTable.Write(path, $"compare-{skill}", rows);
    }

    private sealed class Immediately(Action<Comparison> told) : IProgress<Comparison>
    {
        public void Report(Comparison value) => told(value);
    }
}
