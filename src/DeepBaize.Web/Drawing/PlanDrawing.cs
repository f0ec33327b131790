using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Positions;
using DeepBaize.Web.Simulation;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Web.Drawing;

/// <summary>A line that is drawn beside the shot, m.</summary>
public sealed record Trace(string Name, IReadOnlyList<TracePoint> Line);

/// <summary>The plan of a position with its shot, to scale, baulk at the left: for print and for other programs.</summary>
public static class PlanDrawing
{
    /// <summary>Wood and cushion around the noses, m.</summary>
    public const double Border = 0.12;

    private const double CushionDepth = 0.05;
    private const string Wood = "#5b3a24",
        Cloth = "#0f4d4d",
        Rubber = "#0b3a3a",
        Hole = "#121212",
        Chalk = "#f2ead2",
        Brass = "#d9b45b",
        White = "#fffaf0",
        Object = "#c9b891";

    // The rules' own colours, and a mark that does not need colour: the ball's value, a cross for the white, a dot for a red.
    private static readonly string[] Fills = ["#f6f2e4", "#e3c22f", "#1f8a4c", "#7a4a2b", "#2c62b8", "#e58fae", "#1b1b1e"];
    private static readonly string[] Marks = ["+", "2", "3", "4", "5", "6", "7"];
    private static readonly string[] Inks = ["#3a3527", "#26210a", "#ffffff", "#ffffff", "#ffffff", "#3b1022", "#ffffff"];

    /// <summary>Height of the plan over its width.</summary>
    public static double Aspect => (Width + 2 * Border) / (Length + 2 * Border);

    /// <param name="at">Where the plan lies on the canvas, and its width, mm.</param>
    /// <param name="goal">A circle that the white is to stop in, if there is one.</param>
    /// <param name="traces">Lines of other strokes, each with a name at its end.</param>
    /// <param name="hasShot">Whether the content's own stroke is drawn.</param>
    public static void Draw(
        ICanvas canvas,
        CheckedContent content,
        (double Left, double Top, double Width) at,
        StopIn? goal = null,
        IReadOnlyList<Trace>? traces = null,
        bool hasShot = true
    )
    {
        var (left, top, width) = at;
        var k = width / (Length + 2 * Border);
        double X(double x) => left + (x + Border) * k;
        double Y(double y) => top + (Width + Border - y) * k;
        (double, double)[] Line(double x1, double y1, double x2, double y2) => [(X(x1), Y(y1)), (X(x2), Y(y2))];
        void Box(double x1, double y1, double x2, double y2, string fill) =>
            canvas.Rectangle(X(x1), Y(y2), (x2 - x1) * k, (y2 - y1) * k, fill);
        var thin = 0.003 * k;

        var (layout, shape, stroke) = (content.Layout, content.Shape, content.Stroke);
        const double d = CushionDepth;
        Box(-Border, -Border, Length + Border, Width + Border, Wood);
        Box(-d, -d, Length + d, Width + d, Cloth);
        foreach (var pocket in shape.PocketShapes)
            canvas.Disc(X(pocket.Drop.X), Y(pocket.Drop.Y), pocket.Drop.Radius * k, Hole);
        foreach (var jaw in shape.PocketShapes.SelectMany(p => new[] { p.JawA, p.JawB }))
        {
            // No farther out than the rubber goes.
            var arc = Enumerable
                .Range(0, 121)
                .Select(i => (jaw.X + jaw.Radius * Math.Cos(i * Math.PI / 60), jaw.Y + jaw.Radius * Math.Sin(i * Math.PI / 60)))
                .Where(p => p.Item1 >= -d && p.Item1 <= Length + d && p.Item2 >= -d && p.Item2 <= Width + d)
                .Select(p => (X(p.Item1), Y(p.Item2)))
                .ToList();
            // From where the arc was cut off, so that the polygon's closing side lies along the rubber's back.
            var cut = Enumerable.Range(0, arc.Count).MaxBy(i => Square(arc[i], arc[(i + 1) % arc.Count]));
            canvas.Polygon([.. arc.Skip(cut + 1), .. arc.Take(cut + 1)], Rubber);
        }
        foreach (var n in shape.Noses)
        {
            if (n.From.X == n.To.X)
                Box(n.From.X == 0 ? -d : Length, n.From.Y, n.From.X == 0 ? 0 : Length + d, n.To.Y, Rubber);
            else
                Box(n.From.X, n.From.Y == 0 ? -d : Width, n.To.X, n.From.Y == 0 ? 0 : Width + d, Rubber);
        }
        foreach (var n in shape.Noses)
            canvas.Line(Line(n.From.X, n.From.Y, n.To.X, n.To.Y), Chalk, thin);
        canvas.Line(Line(BaulkLineX, 0, BaulkLineX, Width), Chalk, thin);
        canvas.Line(
            [
                .. Enumerable
                    .Range(0, 61)
                    .Select(i => Math.PI / 2 + i * Math.PI / 60)
                    .Select(a => (X(BaulkLineX + DRadius * Math.Cos(a)), Y(Width / 2 + DRadius * Math.Sin(a)))),
            ],
            Chalk,
            thin
        );
        foreach (var colour in Ball.Colours)
            canvas.Disc(X(Spot(colour).X), Y(Spot(colour).Y), 0.004 * k, Chalk);
        if (goal is not null)
            canvas.Disc(X(goal.Area.X), Y(goal.Area.Y), goal.Area.Radius * k, null, Brass, 2 * thin);

        foreach (var (trace, i) in (traces ?? []).Select((t, i) => (t, i)))
            DrawTrace(canvas, trace, i, k, X, Y);

        if (hasShot && content.Aimed() is { } aimed)
        {
            foreach (var leg in aimed.Cut.Legs)
                canvas.Line(Line(leg.From.X, leg.From.Y, leg.To.X, leg.To.Y), Brass, 1.5 * thin, [0.016 * k, 0.010 * k]);
            canvas.Disc(X(aimed.Cut.Ghost.X), Y(aimed.Cut.Ghost.Y), BallRadius * k, null, Brass, thin);
            stroke = aimed.Stroke;
        }
        if (hasShot)
            DrawPlayed();
        foreach (var ball in layout.Balls)
        {
            var index = ball.Ball.Index;
            canvas.Disc(X(ball.X), Y(ball.Y), BallRadius * k, ball.Ball.IsRed ? "#b3262e" : Fills[index], "#0a0a0a", thin);
            if (ball.Ball.IsRed)
                canvas.Disc(X(ball.X), Y(ball.Y), 0.006 * k, "#ffffff");
            else
                canvas.Text(X(ball.X), Y(ball.Y) + 0.012 * k, 0.036 * k, Marks[index], Inks[index], bold: true, Anchor.Middle);
        }

        void DrawPlayed()
        {
            var played = SimulationResult.Play(layout, stroke.ToStrike(), shape).Result;
            foreach (var path in played.Paths.OrderBy(p => p.Id == "white"))
                canvas.Line(
                    [.. path.Points.Select(p => (X(p.X), Y(p.Y)))],
                    path.Id == "white" ? White : Object,
                    2 * thin,
                    path.Id == "white" ? null : [0.006 * k, 0.008 * k]
                );
            foreach (var final in played.Finals.Where(f => f.Id == "white" && f.Pocket is null))
                canvas.Disc(X(final.X), Y(final.Y), BallRadius * k, null, White, 2 * thin);
        }
    }

    /// <summary>Each line in a dash of its own, with its name where it ends.</summary>
    private static void DrawTrace(ICanvas canvas, Trace trace, int number, double k, Func<double, double> x, Func<double, double> y)
    {
        if (trace.Line.Count < 2)
            return;
        var colour = TraceColours[number % TraceColours.Length];
        var end = trace.Line[^1];
        canvas.Line(
            [.. trace.Line.Select(p => (x(p.X), y(p.Y)))],
            colour,
            0.005 * k,
            [.. Dashes[number % Dashes.Length].Select(d => d * k)]
        );
        canvas.Disc(x(end.X), y(end.Y), BallRadius * k, null, colour, 0.004 * k);
        var isRight = end.X > Length * 0.8;
        canvas.Text(
            x(end.X) + (isRight ? -1 : 1) * 0.045 * k,
            y(end.Y) + 0.018 * k,
            0.055 * k,
            trace.Name,
            colour,
            bold: true,
            isRight ? Anchor.End : Anchor.Start
        );
    }

    private static readonly string[] TraceColours = ["#9fd8d0", "#f0c987", "#d7b8e8", "#a9cdf5", "#f4b3a0", "#c5dd9a"];
    private static readonly double[][] Dashes =
    [
        [0.06, 0.02],
        [0.014, 0.02],
        [0.08, 0.02, 0.014, 0.02],
        [0.032, 0.016],
    ];

    private static double Square((double X, double Y) a, (double X, double Y) b) => (a.X - b.X) * (a.X - b.X) + (a.Y - b.Y) * (a.Y - b.Y);
}
