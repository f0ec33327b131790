using System.Diagnostics;
using System.Globalization;
using DeepBaize.Core.Geometry;
using DeepBaize.Core.Learning;
using DeepBaize.Core.Players;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;
using DeepBaize.Shared;
using MathNet.Numerics.LinearAlgebra;
using MathNet.Numerics.Statistics;

namespace DeepBaize.Benchmarks;

/// <summary>
/// Holds what is learnt to truths that are known, and writes how often it is right into docs/learning.md:
/// <c>dotnet run -c Release --project bench/DeepBaize.Benchmarks -- learning [causes|tables|teaching|players] [count]</c>. Some 40 minutes
/// in all.
/// </summary>
internal static class LearningQuality
{
    private const double Doubt = 0.01;

    private static readonly TableShape Shape = new(Conditions.Default);

    public static void Run(string path, string[] which)
    {
        bool Wanted(string part) => which is [] || which[0] == part;
        var count = which is [_, var asked] ? int.Parse(asked, CultureInfo.InvariantCulture) : (int?)null;
        if (Wanted("causes"))
            DocTable.Write(path, "causes", Causes(count ?? 200));
        if (Wanted("tables"))
            DocTable.Write(path, "tables", Tables(count ?? 40));
        if (Wanted("teaching"))
            DocTable.Write(path, "teaching", Teaching(count ?? 12));
        if (Wanted("players"))
            DocTable.Write(path, "players", Players(count ?? 30));
    }

    private static string Row(params object[] cells) =>
        $"| {string.Join(" | ", cells.Select(c => string.Create(CultureInfo.InvariantCulture, $"{c}")))} |";

    private static string Share(int part, int whole) => $"{100.0 * part / whole:0} %";

    private static string Millimetres(double metres) => $"{1000 * metres:0}";

    // ---- One stroke ----

    private static IEnumerable<string> Causes(int count)
    {
        yield return Row("player", "strokes", "right cause first", "level with the first", "among the first two", "time, ms");
        yield return "|---|---|---|---|---|---|";
        foreach (var name in new[] { "tour", "county", "club" })
        {
            var (skill, random, clock) = (Skill.Named(name), new Random(35), new Stopwatch());
            var (first, level, two) = (0, 0, 0);
            for (var i = 0; i < count; i++)
            {
                var (observed, causes) = OneError(random, skill);
                clock.Start();
                var found = Diagnosis.Of(observed, skill, Shape, Workers.Shared()).Causes.ToList();
                clock.Stop();
                var rank = found.FindIndex(c => causes.Contains(c.Cause));
                first += rank == 0 ? 1 : 0;
                two += rank is 0 or 1 ? 1 : 0;
                level += rank > 0 && found[0].Chance - found[rank].Chance < 0.1 ? 1 : 0;
            }
            var time = $"{clock.Elapsed.TotalMilliseconds / count:0}";
            yield return Row(name, count, Share(first, count), Share(level, count), Share(two, count), time);
        }
    }

    /// <summary>A stroke with one part off by 2 to 3.5 standard deviations, and the causes that are right.</summary>
    private static (ObservedStroke Observed, StrokeFault[] Causes) OneError(Random random, Skill skill)
    {
        var (layout, stroke, pot) = RandomStrokes.Pot(random, Shape);
        var scatter = Scatter.Of(layout, stroke, skill, Shape, pot);
        var size = (2 + 1.5 * random.NextDouble()) * (random.Next(2) == 0 ? 1 : -1);
        var (error, causes) = random.Next(4) switch
        {
            0 => (new StrokeError(size * scatter.TurnDegrees, 0, 0, 0), new[] { StrokeFault.Thick, StrokeFault.Thin }),
            1 => (new(0, size * scatter.Pace, 0, 0), [size > 0 ? StrokeFault.Hard : StrokeFault.Soft]),
            2 => (new(0, 0, size * scatter.Side, 0), [size > 0 ? StrokeFault.RightSide : StrokeFault.LeftSide]),
            _ => (new(0, 0, 0, size * scatter.Height), [size > 0 ? StrokeFault.High : StrokeFault.Low]),
        };
        return (RandomStrokes.Seen(layout, stroke, error, Shape, Doubt, random, pot), causes);
    }

    // ---- Tables ----

    private static readonly string[] Three = ["rollingFriction", "cushionRestitution", "slidingFriction"];

    private static readonly string[] Eight =
    [
        .. Three,
        "cushionFriction",
        "driftAlong",
        "driftAcross",
        "ballRestitution",
        "spinDeceleration",
    ];

    private static readonly Skill Machine = new(Skill.Own, 0.001, 0.005, 0.1, 0.2, 0.05, 0.01) { CushionDegrees = 0.02 };

    private static IEnumerable<string> Tables(int tables)
    {
        yield return Row("player", "strokes", "figures", "truth in the 90 % interval", "its width against before", "time, ms");
        yield return "|---|---|---|---|---|---|";
        foreach (
            var (name, skill, strokes, names) in new[]
            {
                ("none to speak of", Machine, 12, Three),
                ("tour", Skill.Named("tour"), 12, Three),
                ("county", Skill.Named("county"), 12, Three),
                ("club", Skill.Named("club"), 20, Three),
                ("county", Skill.Named("county"), 24, Eight),
            }
        )
        {
            var (parameters, random, clock) = (Parameter.Named(names), new Random(36), new Stopwatch());
            var (held, width) = (0, 0.0);
            for (var t = 0; t < tables; t++)
            {
                var (prior, truth) = Hidden(parameters, random);
                var seen = Strokes(strokes, skill, new(prior.With(truth)), random);
                clock.Start();
                var learnt = TableFit.Of(seen, prior, skill, Workers.Shared()).Belief;
                clock.Stop();
                for (var i = 0; i < parameters.Count; i++)
                {
                    var (range, real) = (learnt.RangeOf(i), parameters[i].Value(truth[i]));
                    held += range.Low <= real && real <= range.High ? 1 : 0;
                    width += 1 - learnt.Narrowed(i);
                }
            }
            var told = tables * parameters.Count;
            var time = $"{clock.Elapsed.TotalMilliseconds / tables:0}";
            yield return Row(name, strokes, parameters.Count, $"{Share(held, told)} of {told}", $"{width / told:0.00}", time);
        }
    }

    /// <summary>A table drawn from what is believed before anything was seen.</summary>
    private static (Belief Prior, Vector<double> Truth) Hidden(IReadOnlyList<Parameter> parameters, Random random)
    {
        var prior = Belief.Before(Conditions.Default, parameters);
        double Drawn(int i) => prior.Mean[i] + parameters[i].Doubt * Normal.Pair(random).Item1;
        return (prior, Vector<double>.Build.Dense(parameters.Count, Drawn));
    }

    /// <summary>Pots and bare whites in turn, by a player on a hidden table.</summary>
    private static List<ObservedStroke> Strokes(int count, Skill skill, TableShape hidden, Random random) =>
        [
            .. Enumerable
                .Range(0, count)
                .Select(i =>
                {
                    if (i % 2 == 1)
                        return RandomStrokes.Bare(random) is var bare
                            ? Played(bare.Layout, bare.Stroke, null, skill, hidden, random)
                            : null!;
                    var (layout, stroke, pot) = RandomStrokes.Pot(random, Shape);
                    return Played(layout, stroke, pot, skill, hidden, random);
                }),
        ];

    private static ObservedStroke Played(Layout layout, in Stroke stroke, Pot? pot, Skill skill, TableShape hidden, Random random)
    {
        var error = Scatter.Of(layout, stroke, skill, hidden, pot).Error(StandardDraws.Draw(random));
        return RandomStrokes.Seen(layout, stroke, error, hidden, Doubt, random, pot);
    }

    // ---- Strokes that teach ----

    private const int Judged = 40;

    private static IEnumerable<string> Teaching(int tables)
    {
        yield return Row("player", "tables", "before, mm", "after ten teaching strokes", "after twenty random strokes");
        yield return "|---|---|---|---|---|";
        foreach (var name in new[] { "tour", "county" })
        {
            var (skill, parameters, random) = (Skill.Named(name), Parameter.Named(Eight), new Random(38));
            var (before, chosen, any) = (new List<double>(), new List<double>(), new List<double>());
            for (var t = 0; t < tables; t++)
            {
                var (prior, truth) = Hidden(parameters, random);
                var hidden = new TableShape(prior.With(truth));
                var taught = Taught(prior, skill, hidden, random);
                var scattered = TableFit.Of(Strokes(20, skill, hidden, random), prior, skill, Workers.Shared()).Belief;
                var judged = Enumerable.Range(0, Judged).Select(_ => RandomStrokes.Bare(random)).ToList();
                double Off(Belief belief) => judged.Average(j => EndOf(j, new(belief.Conditions)).DistanceTo(EndOf(j, hidden)));
                before.Add(Off(prior));
                chosen.Add(Off(taught));
                any.Add(Off(scattered));
            }
            string Mean(List<double> offs) =>
                $"{Millimetres(offs.Average())} ± {Millimetres(offs.StandardDeviation() / Math.Sqrt(offs.Count))}";
            yield return Row(name, tables, Mean(before), Mean(chosen), Mean(any));
        }
    }

    private static Vec2 EndOf((Layout Layout, Stroke Stroke) shot, TableShape shape) =>
        TeachingStrokes.Predicted(shot.Layout, shot.Stroke, Doubt, shape).Seen.Balls[0].At;

    private static Belief Taught(Belief prior, Skill skill, TableShape hidden, Random random)
    {
        var (belief, seen) = (prior, new List<ObservedStroke>());
        while (seen.Count < 10)
        {
            var next = TeachingStrokes.Next(belief, skill, Doubt, Workers.Shared())[0];
            seen.Add(Played(next.Layout, next.Stroke, null, skill, hidden, random));
            belief = TableFit.Of(seen, prior, skill, Workers.Shared()).Belief;
        }
        return belief;
    }

    // ---- Players ----

    private static IEnumerable<string> Players(int players)
    {
        yield return Row("attempts", "players", "part", "truth in the 90 % interval", "its width against before", "learnt over truth");
        yield return "|---|---|---|---|---|---|";
        foreach (var attempts in new[] { 40, 120 })
        {
            var random = new Random(37);
            var told = new List<(LearntPart Part, double Real)>();
            for (var t = 0; t < players; t++)
            {
                var truth = Varied(Skill.Named("club"), random);
                var seen = Strokes(attempts, truth, Shape, random);
                told.AddRange(PlayerFit.Of(seen, Skill.Named("club"), Shape, Workers.Shared()).Parts.Select(p => (p, p.Part.Of(truth))));
            }
            foreach (var part in told.GroupBy(p => p.Part.Part.Name))
            {
                var held = part.Count(p => p.Part.Range.Low <= p.Real && p.Real <= p.Part.Range.High);
                var width = part.Average(p => 1 - p.Part.Narrowed);
                var off = Math.Exp(part.Average(p => Math.Log(p.Part.Range.Value / p.Real)));
                yield return Row(attempts, players, part.Key, Share(held, players), $"{width:0.00}", $"{off:0.00} ×");
            }
        }
    }

    /// <summary>A player whose parts are about those of another, as far apart as players are.</summary>
    private static Skill Varied(Skill about, Random random)
    {
        double Of(double part, double doubt) => part * Math.Exp(doubt * Normal.Pair(random).Item1);
        return new(
            Skill.Own,
            Of(about.DirectionDegrees, 0.6),
            Of(about.SightingMillimetres, 0.6),
            Of(about.AllowancePercent, 0.6),
            Of(about.PacePercent, 0.5),
            Of(about.HeightMillimetres, 0.5),
            Of(about.SideMillimetres, 0.7)
        )
        {
            CushionDegrees = Of(about.CushionDegrees, 0.6),
            Evenness = Math.Clamp(Of(about.Evenness, 0.4), 2, 30),
        };
    }
}
