using System.Globalization;
using DeepBaize.Core.Advice.Break;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Practice.Shipped;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Table;

namespace DeepBaize.Benchmarks;

/// <summary>
/// What the runs among the shipped routines come to, by the planner's choice and each preset's errors: the figures of
/// <c>Shipped/ExpectedRuns.cs</c>. <c>dotnet run -c Release --project bench/DeepBaize.Benchmarks -- runs [breaks]</c>; twenty minutes
/// for 32.
/// </summary>
internal static class RunChecks
{
    private const int FirstSeed = 9000;

    public static void Run(string[] how)
    {
        var breaks = how is [var count, ..] ? int.Parse(count, CultureInfo.InvariantCulture) : 16;
        var shape = new TableShape(Conditions.Default);
        foreach (var skill in Skill.Presets)
            foreach (var (id, routine) in ShippedRoutines.All.Where(r => r.Routine.Steps[0].IsRun))
            {
                var step = routine.Steps[0];
                // A black alone that is to be potted more than once comes back.
                var repeats = step.Balls.Count == 2;
                var from = Situation.Create(step.LayoutOn(shape), new FrameSetup { Repeats = repeats });
                var made = new int[breaks];
                Parallel.For(
                    0,
                    breaks,
                    i => made[i] = BreakAdvice.PlayBreak(from, Player.OfSkill(skill.Name), shape, FirstSeed + i).Points
                );
                var mean = made.Average();
                var error = Math.Sqrt(made.Sum(m => (m - mean) * (m - mean)) / (breaks - 1.0) / breaks);
                var reached = made.Count(m => m >= step.Demands[0].Points);
                Console.WriteLine(
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"new(\"{id}\", \"{skill.Name}\", {mean:0.0}, {error:0.0}, {reached}, {breaks}),"
                    )
                );
            }
    }
}
