using System.Diagnostics;
using System.Globalization;
using DeepBaize.Core.Learning;
using DeepBaize.Core.Players;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;
using DeepBaize.Shared;

namespace DeepBaize.Benchmarks;

/// <summary>
/// Holds what is learnt to truths that are known, and writes how often it is right into docs/learning.md:
/// <c>dotnet run -c Release --project bench/DeepBaize.Benchmarks -- learning</c>.
/// </summary>
internal static class LearningQuality
{
    private static readonly TableShape Shape = new(Conditions.Default);

    public static void Run(string path, string[] which)
    {
        if (which is [] or ["causes"])
            DocTable.Write(path, "causes", Causes());
        if (which is [] or ["tables"])
            DocTable.Write(path, "tables", Tables());
        if (which is [] or ["players"])
            DocTable.Write(path, "players", Players());
    }

    private static IEnumerable<string> Causes()
    {
        yield return "| player | strokes | right cause first | level with the first | among the first two | first answer, ms |";
        yield return "|---|---|---|---|---|---|";
        foreach (var name in new[] { "tour", "county", "club" })
        {
            var skill = Skill.Named(name);
            var random = new Random(35);
            var (first, level, two, count, time) = (0, 0, 0, 200, 0.0);
            var wrong = new Dictionary<string, int>();
            for (var i = 0; i < count; i++)
            {
                var (layout, stroke, pot) = RandomStrokes.Pot(random, Shape);
                var scatter = Scatter.Of(layout, stroke, skill, Shape, pot);
                var size = (2 + 1.5 * random.NextDouble()) * (random.Next(2) == 0 ? 1 : -1);
                var part = random.Next(4);
                var error = part switch
                {
                    0 => new StrokeError(size * scatter.TurnDegrees, 0, 0, 0),
                    1 => new(0, size * scatter.Pace, 0, 0),
                    2 => new(0, 0, size * scatter.Side, 0),
                    _ => new(0, 0, 0, size * scatter.Height),
                };
                var observed = RandomStrokes.Seen(layout, stroke, error, Shape, 0.01, random, pot);
                var clock = Stopwatch.StartNew();
                var found = Diagnosis.Of(observed, skill, Shape, Workers.Shared());
                time += clock.Elapsed.TotalMilliseconds;
                bool IsRight(LikelyCause c) =>
                    part switch
                    {
                        0 => c.Cause is Cause.Thick or Cause.Thin,
                        1 => c.Cause == (size > 0 ? Cause.Hard : Cause.Soft),
                        2 => c.Cause == (size > 0 ? Cause.RightSide : Cause.LeftSide),
                        _ => c.Cause == (size > 0 ? Cause.High : Cause.Low),
                    };
                var rank = found.Causes.ToList().FindIndex(IsRight);
                first += rank == 0 ? 1 : 0;
                two += rank is 0 or 1 ? 1 : 0;
                if (rank > 0 && found.Causes[0].Chance - found.Causes[rank].Chance < 0.1)
                    level++;
                if (rank != 0)
                {
                    var key = $"{part}->{(found.Causes.Count > 0 ? found.Causes[0].Cause : "none")} e{found.Explains:0.0}";
                    wrong[key] = wrong.GetValueOrDefault(key) + 1;
                }
            }
            foreach (var (k, v) in wrong)
                Console.WriteLine($"{name} {k}: {v}");
            yield return string.Create(
                CultureInfo.InvariantCulture,
                $"| {name} | {count} | {100.0 * first / count:0} % | {100.0 * level / count:0} % | {100.0 * two / count:0} % | {time / count:0} |"
            );
        }
    }

    private static readonly string[] Fitted = ["rollingFriction", "cushionRestitution", "slidingFriction"];

    private static IEnumerable<string> Tables()
    {
        yield return "| player | trials | tables | truth in the 90 % interval | width of it against before | miss before, mm | after, mm | time, ms |";
        yield return "|---|---|---|---|---|---|---|---|";
        foreach (
            var (name, trials, fit) in (Environment.GetEnvironmentVariable("TABLES") != null ? 3 : 9) is var most
                ? new[]
                {
                    ("exact", 12, Fitted),
                    ("tour", 12, Fitted),
                    ("county", 12, Fitted),
                    ("club", 20, Fitted),
                    ("county", 30, [.. Fitted, "driftAlong", "driftAcross", "cushionFriction", "ballRestitution", "spinDeceleration"]),
                }.Take(most)
                : []
        )
        {
            var parameters = Parameter.Named(fit);
            var skill =
                name == "exact" ? new Skill("own", 0.001, 0.005, 0.1, 0.2, 0.05, 0.01) { CushionDegrees = 0.02 } : Skill.Named(name);
            var random = new Random(36);
            var tables = int.Parse(Environment.GetEnvironmentVariable("TABLES") ?? "60");
            var (held, told, narrowed, before, after, time) = (0, 0, 0.0, 0.0, 0.0, 0.0);
            var by = new int[parameters.Count];
            for (var t = 0; t < tables; t++)
            {
                var prior = Belief.Before(Conditions.Default, parameters);
                var truth = MathNet.Numerics.LinearAlgebra.Vector<double>.Build.Dense(
                    parameters.Count,
                    i => prior.Mean[i] + parameters[i].Doubt * DeepBaize.Core.Geometry.Normal.Pair(random).Item1
                );
                var hidden = new TableShape(prior.With(truth));
                var seen = new List<ObservedStroke>();
                for (var i = 0; i < trials; i++)
                {
                    var (layout, stroke, pot) = i % 2 == 0 ? RandomStrokes.Pot(random, Shape) : (default!, default, null!);
                    if (i % 2 == 1)
                        (layout, stroke) = RandomStrokes.Bare(random);
                    var error = Scatter.Of(layout, stroke, skill, hidden, pot).Error(StandardDraws.Draw(random));
                    seen.Add(RandomStrokes.Seen(layout, stroke, error, hidden, 0.01, random, pot));
                }
                var clock = Stopwatch.StartNew();
                var learnt = TableFit.Of(seen, prior, skill, Workers.Shared());
                time += clock.Elapsed.TotalMilliseconds;
                if (Environment.GetEnvironmentVariable("FITLOG") is not null)
                    Console.WriteLine(
                        "   truth "
                            + string.Join(" ", truth.Select(f => f.ToString("0.000")))
                            + " sd "
                            + string.Join(
                                " ",
                                Enumerable
                                    .Range(0, parameters.Count)
                                    .Select(i => Math.Sqrt(learnt.Belief.Covariance[i, i]).ToString("0.0000"))
                            )
                            + " strange "
                            + learnt.Strange.Count
                    );
                (before, after) = (before + learnt.MissBefore, after + learnt.MissAfter);
                for (var i = 0; i < parameters.Count; i++)
                {
                    var (range, true1) = (learnt.Belief.RangeOf(i), parameters[i].Value(truth[i]));
                    told++;
                    if (range.Low <= true1 && true1 <= range.High)
                        (held, by[i]) = (held + 1, by[i] + 1);
                    narrowed += 1 - learnt.Belief.Narrowed(i);
                }
            }
            for (var i = 0; i < parameters.Count; i++)
                Console.WriteLine($"{name} {parameters[i].Name}: {by[i]} of {tables}");
            yield return string.Create(
                CultureInfo.InvariantCulture,
                $"| {name} | {trials} | {tables} | {100.0 * held / told:0} % of {parameters.Count} figures | {narrowed / told:0.00} | {1000 * before / tables:0} | {1000 * after / tables:0} | {time / tables:0} |"
            );
        }
    }

    private static IEnumerable<string> Players()
    {
        yield return "| attempts | players | part | truth in the 90 % interval | width of it against before | learnt against truth |";
        yield return "|---|---|---|---|---|---|";
        foreach (var attempts in new[] { 40, 120 })
        {
            var random = new Random(37);
            var players = int.Parse(Environment.GetEnvironmentVariable("PLAYERS") ?? "50");
            var held = new Dictionary<string, (int Held, double Narrowed, double Off)>();
            var time = 0.0;
            for (var t = 0; t < players; t++)
            {
                var before = Skill.Named("club");
                double Varied(double part, double doubt) => part * Math.Exp(doubt * DeepBaize.Core.Geometry.Normal.Pair(random).Item1);
                var truth = new Skill(
                    "own",
                    Varied(before.DirectionDegrees, 0.6),
                    Varied(before.SightingMillimetres, 0.6),
                    Varied(before.AllowancePercent, 0.6),
                    Varied(before.PacePercent, 0.5),
                    Varied(before.HeightMillimetres, 0.5),
                    Varied(before.SideMillimetres, 0.7)
                )
                {
                    CushionDegrees = Varied(before.CushionDegrees, 0.6),
                    Evenness = Math.Clamp(Varied(4, 0.4), 2, 30),
                };
                var seen = new List<ObservedStroke>();
                for (var i = 0; i < attempts; i++)
                {
                    var (layout, stroke, pot) = i % 3 < 2 ? RandomStrokes.Pot(random, Shape) : (default!, default, null!);
                    if (i % 3 == 2)
                        (layout, stroke) = RandomStrokes.Bare(random);
                    if (i % 3 == 1)
                        stroke = stroke with { SideTips = 0.6 };
                    var error = Scatter.Of(layout, stroke, truth, Shape, pot).Error(StandardDraws.Draw(random));
                    seen.Add(RandomStrokes.Seen(layout, stroke, error, Shape, 0.01, random, pot));
                }
                var clock = Stopwatch.StartNew();
                var learnt = PlayerFit.Of(seen, before, Shape, Workers.Shared());
                time += clock.Elapsed.TotalMilliseconds;
                foreach (var part in learnt.Parts)
                {
                    var real = part.Part.Of(truth);
                    var (h, n, o) = held.GetValueOrDefault(part.Part.Name);
                    held[part.Part.Name] = (
                        h + (part.Range.Low <= real && real <= part.Range.High ? 1 : 0),
                        n + 1 - part.Narrowed,
                        o + Math.Log(part.Range.Value / real)
                    );
                }
                if (t == 0)
                    Console.WriteLine($"unexplained {learnt.Unexplained.Count} of {attempts}; {time:0} ms");
            }
            foreach (var (part, (h, n, o)) in held)
                yield return string.Create(
                    CultureInfo.InvariantCulture,
                    $"| {attempts} | {players} | {part} | {100.0 * h / players:0} % | {n / players:0.00} | {Math.Exp(o / players):0.00} × |"
                );
            Console.WriteLine($"{time / players:0} ms");
        }
    }
}
