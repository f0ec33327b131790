using System.Globalization;
using DeepBaize.Core.Players;
using MathNet.Numerics.LinearAlgebra;
using MathNet.Numerics.Optimization;

namespace DeepBaize.Benchmarks;

/// <summary>
/// Holds the preset skills to the table of docs/model.md and writes it there:
/// <c>dotnet run -c Release --project bench/DeepBaize.Benchmarks -- skills</c>; <c>skills fit [points]</c> shows what a fit makes of
/// them, so many points below the table (the breaks win, and they come out too long at the table's own figures).
/// </summary>
internal static class SkillFit
{
    private const int FitStrokes = 1024,
        ToldStrokes = 16384;

    /// <summary>The presets against the table, and where asked for what a fit makes of them.</summary>
    public static void Run(string path, string[] how)
    {
        var fits = how is ["fit", ..];
        var below = how is [_, var points] ? double.Parse(points, CultureInfo.InvariantCulture) : 0;
        IReadOnlyList<Skill> skills = fits ? [.. Skill.Presets.Select(s => Fitted(s, below))] : Skill.Presets;
        foreach (var s in skills.Where(_ => fits))
            Console.WriteLine(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"new(\"{s.Name}\", {s.DirectionDegrees:0.0000}, {s.SightingMillimetres:0.000}, {s.AllowancePercent:0.00}, "
                        + $"{s.PacePercent:0.00}, "
                        + $"{s.HeightMillimetres:0.000}, {s.SideMillimetres:0.000}) "
                        + $"{{ CushionDegrees = {s.CushionDegrees:0.00}, RestFactor = {s.RestFactor:0.00} }},"
                )
            );
        var lines = new List<string>
        {
            "| in how many of a hundred; wanted → told | " + string.Join(" | ", skills.Select(s => s.Name)) + " |",
            "|---|" + string.Concat(skills.Select(_ => "---|")),
        };
        foreach (var row in SkillRow.All)
            lines.Add($"| {row.Name} | " + string.Join(" | ", skills.Select((s, i) => Cell(row, s, row.Wanted[i]))) + " |");
        Console.WriteLine(string.Join('\n', lines));
        if (!fits)
            DocTable.Write(path, "skills", lines);
    }

    private static readonly Vector<double> Stays = Vector<double>.Build.Dense([0.5, 0.5, 20, 0.5, 20, 20, 0.5, 20]);

    private static string Cell(SkillRow row, Skill skill, double wanted)
    {
        var told = 100 * row.Share(skill, ToldStrokes);
        var mark = Math.Abs(told - wanted) > 5 ? "**" : "";
        return string.Create(CultureInfo.InvariantCulture, $"{wanted} → {mark}{told:0.0}{mark}");
    }

    /// <summary>Nelder and Mead's search over the logarithms of the parts.</summary>
    private static Skill Fitted(Skill preset, double below)
    {
        var which = Enumerable.Range(0, Skill.Presets.Count).First(i => Skill.Presets[i] == preset);
        var start = Vector<double>.Build.Dense([
            Math.Log(preset.DirectionDegrees),
            Math.Log(preset.SightingMillimetres),
            Math.Log(preset.AllowancePercent),
            Math.Log(preset.PacePercent),
            Math.Log(preset.HeightMillimetres),
            Math.Log(preset.SideMillimetres),
            Math.Log(preset.CushionDegrees),
            Math.Log(preset.RestFactor - 1),
        ]);
        Skill Of(Vector<double> x) =>
            preset with
            {
                DirectionDegrees = Math.Exp(x[0]),
                SightingMillimetres = Math.Exp(x[1]),
                AllowancePercent = Math.Exp(x[2]),
                PacePercent = Math.Exp(x[3]),
                HeightMillimetres = Math.Exp(x[4]),
                SideMillimetres = Math.Exp(x[5]),
                CushionDegrees = Math.Exp(x[6]),
                RestFactor = 1 + Math.Exp(x[7]),
            };
        double Misfit(Vector<double> x) =>
            SkillRow.All.Sum(row => Math.Pow(100 * row.Share(Of(x), FitStrokes, "fit") - (row.Wanted[which] - below), 2))
            // The table leaves some of it open, allowance and tip above all: what it does not settle stays near the start.
            + (x - start).PointwiseMultiply(Stays).DotProduct(x - start);
        var found = NelderMeadSimplex.Minimum(
            ObjectiveFunction.Value(Misfit),
            start,
            Vector<double>.Build.Dense(8, 0.25),
            convergenceTolerance: 0.02,
            maximumIterations: 200
        );
        Console.WriteLine(
            $"{preset.Name}: {found.ReasonForExit}, {found.Iterations} steps, misfit {found.FunctionInfoAtMinimum.Value:0.0}"
        );
        return Of(found.MinimizingPoint);
    }
}
