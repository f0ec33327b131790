using System.Globalization;
using System.Text;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;

namespace DeepBaize.Benchmarks;

/// <summary>
/// Draws how the chances of the four preset skills fall, for docs/curves.md:
/// <c>dotnet run -c Release --project bench/DeepBaize.Benchmarks -- curves</c>. A minute.
/// </summary>
internal static class CurvesPage
{
    private const int Strokes = 4096;

    private static readonly (CurveKind Kind, string Title, string Scale)[] Charts =
    [
        (CurveKind.Distance, "Straight, ever longer", "white to red, m; the red 1 m from the pocket, pace 5"),
        (CurveKind.OpenRed, "A red in the open, ever farther", "white to red, m; cut by 20°, 0.7 m on, pace 4.5"),
        (CurveKind.Cut, "Ever thinner", "cut, degrees; 0.6 m to the red, 0.8 m on, pace 4"),
        (CurveKind.Double, "A double into a middle pocket, ever thinner", "cut, degrees; white 0.5 m away, 1.7 m on, pace 4"),
        (CurveKind.Power, "Ever harder", "pace; half-ball, 0.6 m and 0.8 m"),
        (CurveKind.Side, "With side", "tips of side, helping to the right; half-ball, pace 5"),
        (CurveKind.Miscue, "Miscues, ever lower on the ball", "tips below the centre; pace 5"),
        (CurveKind.Position, "The white within 150 mm of where it should stop", "how far it runs, m; half-ball black, plain"),
        (CurveKind.Reach, "Out of reach", "errors times: 1 natural, a stretch, the rest or the other hand, a steep butt"),
    ];

    // Each skill its own stroke, and its name at the end of its line.
    private static readonly (string Colour, string Dashes)[] Lines =
    [
        ("#0b3d40", ""),
        ("#7a5a0c", "9 3"),
        ("#a8321b", "3 3"),
        ("#4c5a56", "12 3 2 3"),
    ];

    public static void Run(string page, string folder)
    {
        var shape = new TableShape(Conditions.Default);
        var curves = Skill.Presets.Select(s => SkillCurves.Of(s, shape, Workers.Shared(), Strokes)).ToList();
        Directory.CreateDirectory(folder);
        var lines = new List<string>();
        foreach (var (kind, title, scale) in Charts)
        {
            var name = kind.ToString().ToLowerInvariant();
            List<SkillCurve> all = [.. curves.Select(c => c.Single(x => x.Kind == kind))];
            File.WriteAllText(Path.Combine(folder, name + ".svg"), Drawing(title, scale, all));
            lines.Add($"![{title}](curves/{name}.svg)");
            lines.Add("");
            lines.Add("| " + scale + " | " + string.Join(" | ", all[0].Points.Select(p => Figure(p.X))) + " |");
            lines.Add("|---|" + string.Concat(all[0].Points.Select(_ => "---|")));
            for (var i = 0; i < all.Count; i++)
                lines.Add($"| {Skill.Presets[i].Name} | " + string.Join(" | ", all[i].Points.Select(p => Share(p.Share.Value))) + " |");
            lines.Add("");
        }
        var worst = curves.SelectMany(c => c).SelectMany(c => c.Points).Max(p => p.Share.Error);
        lines.Add(
            string.Create(
                CultureInfo.InvariantCulture,
                $"Each point is {Strokes:N0} strokes; no standard error is above {100 * worst:0.0} points."
            )
        );
        DocTable.Write(page, "curves", lines);
    }

    private static string Tip(CurvePoint p) => $"<title>{Figure(p.X)}: {Share(p.Share.Value)}</title>";

    private static string Figure(double x) => x.ToString("0.##", CultureInfo.InvariantCulture);

    private static string Share(double share) =>
        share is > 0 and < 0.1 or > 0.99 and < 0.9995
            ? string.Create(CultureInfo.InvariantCulture, $"{100 * share:0.0} %")
            : $"{100 * share:0} %";

    private static string Drawing(string title, string scale, IReadOnlyList<SkillCurve> curves)
    {
        const double width = 640,
            height = 300,
            left = 58,
            right = 80,
            top = 34,
            bottom = 48;
        var highest = curves.Max(c => c.Points.Max(p => p.Share.Value));
        var most =
            highest > 0.5 ? 1
            : highest > 0.25 ? 0.5
            : 0.25;
        var (from, to) = (curves[0].Points[0].X, curves[0].Points[^1].X);
        double X(double x) => left + (x - from) / (to - from) * (width - left - right);
        double Y(double share) => top + (1 - share / most) * (height - top - bottom);
        var svg = new StringBuilder();
        void Add(FormattableString line) => svg.AppendLine(FormattableString.Invariant(line));
        Add($"<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 {width} {height}\" font-family=\"sans-serif\" font-size=\"13\">");
        Add($"<title>{title}</title><rect width=\"{width}\" height=\"{height}\" fill=\"#fbf9f2\"/>");
        Add($"<text x=\"{left}\" y=\"20\" font-weight=\"bold\" fill=\"#1c2624\">{title}</text>");
        for (var i = 0; i <= 4; i++)
        {
            var share = most * i / 4;
            Add($"<line x1=\"{left}\" x2=\"{width - right}\" y1=\"{Y(share):0.0}\" y2=\"{Y(share):0.0}\" stroke=\"#cdc6b0\"/>");
            Add($"<text x=\"{left - 6}\" y=\"{Y(share) + 4:0.0}\" text-anchor=\"end\" fill=\"#4c5a56\">{100 * share:0.#} %</text>");
        }
        var last = double.NegativeInfinity;
        foreach (var point in curves[0].Points.Where(p => X(p.X) - last > 30 && (last = X(p.X)) > 0))
            Add($"<text x=\"{X(point.X):0.0}\" y=\"{height - 28}\" text-anchor=\"middle\" fill=\"#4c5a56\">{Figure(point.X)}</text>");
        Add($"<text x=\"{left}\" y=\"{height - 8}\" fill=\"#4c5a56\">{scale}</text>");
        // Names where the lines end, pushed apart where they would collide.
        var ends = curves.Select((c, i) => (Index: i, At: Y(c.Points[^1].Share.Value))).OrderBy(e => e.At).ToList();
        for (var i = 1; i < ends.Count; i++)
            if (ends[i].At < ends[i - 1].At + 15)
                ends[i] = (ends[i].Index, ends[i - 1].At + 15);
        foreach (var (index, at) in ends)
        {
            var (colour, dashes) = Lines[index];
            var points = string.Join(
                ' ',
                curves[index].Points.Select(p => FormattableString.Invariant($"{X(p.X):0.0},{Y(p.Share.Value):0.0}"))
            );
            Add($"<polyline points=\"{points}\" fill=\"none\" stroke=\"{colour}\" stroke-width=\"2\" stroke-dasharray=\"{dashes}\"/>");
            foreach (var p in curves[index].Points)
                Add($"<circle cx=\"{X(p.X):0.0}\" cy=\"{Y(p.Share.Value):0.0}\" r=\"3\" fill=\"{colour}\">{Tip(p)}</circle>");
            Add($"<text x=\"{width - right + 8}\" y=\"{at + 4:0.0}\" fill=\"{colour}\">{Skill.Presets[index].Name}</text>");
        }
        svg.AppendLine("</svg>");
        return svg.ToString();
    }
}
