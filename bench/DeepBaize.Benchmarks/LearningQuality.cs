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
}
