using System.Globalization;
using System.Xml.Linq;
using DeepBaize.Core.Shots;
using DeepBaize.Core.Table;
using DeepBaize.Web.Simulation;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Web.Positions;

/// <summary>A position as a drawing to scale, in millimetres, baulk at the left: for print and for other programs.</summary>
public static class PositionSvg
{
    private static readonly XNamespace Svg = "http://www.w3.org/2000/svg";
    private const double Border = 120, Caption = 150;

    // The rules' own colours, and a mark that does not need colour: the ball's value, a dot for the white, none for a red.
    private static readonly string[] Fills = ["#f6f2e4", "#e3c22f", "#1f8a4c", "#7a4a2b", "#2c62b8", "#e58fae", "#1b1b1e"];
    private static readonly string[] Marks = ["•", "2", "3", "4", "5", "6", "7"];

    /// <exception cref="DeepBaize.Core.InputException">The position cannot be.</exception>
    public static string Draw(PositionDraft draft)
    {
        var content = CheckedContent.Of(draft.Content);
        var (layout, shape, stroke) = (content.Layout, content.Shape, content.Stroke);
        var (width, height) = (Length * 1000, Width * 1000);
        var plan = new XElement(Svg + "g", new XAttribute("fill", "none"), new XAttribute("stroke-width", 3));
        plan.Add(Rectangle(-Border, -Border, width + 2 * Border, height + 2 * Border, "#5b3a24"), Rectangle(-50, -50, width + 100, height + 100, "#0f4d4d"));
        foreach (var pocket in shape.PocketShapes)
            plan.Add(Disc(pocket.Drop.X, pocket.Drop.Y, pocket.Drop.Radius, "#121212"));
        foreach (var pocket in shape.PocketShapes)
            plan.Add(Disc(pocket.JawA.X, pocket.JawA.Y, pocket.JawA.Radius, "#0b3a3a"), Disc(pocket.JawB.X, pocket.JawB.Y, pocket.JawB.Radius, "#0b3a3a"));
        foreach (var nose in shape.Noses) plan.Add(Line([(nose.X1, nose.Y1), (nose.X2, nose.Y2)], "#f2ead2", null));
        plan.Add(Line([(BaulkLineX, 0), (BaulkLineX, Width)], "#f2ead2", null));
        plan.Add(new XElement(Svg + "path", new XAttribute("stroke", "#f2ead2"),
            new XAttribute("d", $"M {N(BaulkLineX * 1000)} {N((Width / 2 - DRadius) * 1000)} A {N(DRadius * 1000)} {N(DRadius * 1000)} 0 0 0 {N(BaulkLineX * 1000)} {N((Width / 2 + DRadius) * 1000)}")));
        foreach (var colour in Ball.Colours) plan.Add(Disc(Spot(colour).X, Spot(colour).Y, 0.004, "#f2ead2"));

        if (content.Aimed() is { } aimed)
        {
            var cut = aimed.Cut;
            foreach (var leg in cut.Legs) plan.Add(Line([(leg.FromX, leg.FromY), (leg.ToX, leg.ToY)], "#d9b45b", "16 10"));
            plan.Add(Disc(cut.GhostX, cut.GhostY, BallRadius, "none", new XAttribute("stroke", "#d9b45b")));
            stroke = aimed.Stroke;
        }
        foreach (var path in SimulationEndpoint.Play(layout, stroke.ToStrike(), shape).Result.Paths)
            plan.Add(Line([.. path.Points.Select(p => (p.X, p.Y))], path.Id == "white" ? "#fffaf0" : "#c9b891", path.Id == "white" ? null : "6 8"));
        foreach (var ball in layout.Balls)
        {
            var index = ball.Ball.Index;
            plan.Add(Disc(ball.X, ball.Y, BallRadius, ball.Ball.IsRed ? "#b3262e" : Fills[index], new XAttribute("stroke", "#0a0a0a")));
            if (!ball.Ball.IsRed)
                // The plan is drawn with y upwards; text is turned back.
                plan.Add(new XElement(Svg + "text", Marks[index], new XAttribute("transform", $"translate({N(ball.X * 1000)} {N(ball.Y * 1000)}) scale(1 -1)"),
                    new XAttribute("font-size", 34), new XAttribute("text-anchor", "middle"), new XAttribute("dominant-baseline", "central"),
                    new XAttribute("fill", index is 0 or 1 or 5 ? "#1b1b1e" : "#ffffff")));
        }
        plan.Add(new XAttribute("transform", $"translate({N(Border)} {N(Border + height)}) scale(1 -1)"));
        var (allWidth, allHeight) = (width + 2 * Border, height + 2 * Border + Caption);
        return new XElement(Svg + "svg",
            new XAttribute("viewBox", $"0 0 {N(allWidth)} {N(allHeight)}"), new XAttribute("width", $"{N(allWidth / 10)}mm"), new XAttribute("height", $"{N(allHeight / 10)}mm"),
            new XAttribute("font-family", "'Source Sans 3', sans-serif"),
            new XElement(Svg + "title", Printable(draft.Name)), new XElement(Svg + "desc", Printable(draft.About)), plan,
            new XElement(Svg + "text", Printable(draft.Name), new XAttribute("x", N(Border)), new XAttribute("y", N(allHeight - 90)), new XAttribute("font-size", 60), new XAttribute("font-weight", 600)),
            new XElement(Svg + "text", Printable(draft.About), new XAttribute("x", N(Border)), new XAttribute("y", N(allHeight - 30)), new XAttribute("font-size", 42))).ToString();
    }

    private static string N(double value) => Math.Round(value, 2).ToString(CultureInfo.InvariantCulture);

    /// <summary>Without what XML cannot hold.</summary>
    private static string Printable(string text) => string.Concat(text.Where(System.Xml.XmlConvert.IsXmlChar));

    private static XElement Rectangle(double x, double y, double width, double height, string fill) => new(Svg + "rect",
        new XAttribute("x", N(x)), new XAttribute("y", N(y)), new XAttribute("width", N(width)), new XAttribute("height", N(height)), new XAttribute("fill", fill));

    private static XElement Disc(double x, double y, double radius, string fill, params XAttribute[] more) => new(Svg + "circle",
        new XAttribute("cx", N(x * 1000)), new XAttribute("cy", N(y * 1000)), new XAttribute("r", N(radius * 1000)), new XAttribute("fill", fill), more);

    private static XElement Line(IReadOnlyList<(double X, double Y)> points, string stroke, string? dashes)
    {
        var line = new XElement(Svg + "polyline", new XAttribute("stroke", stroke),
            new XAttribute("points", string.Join(" ", points.Select(p => $"{N(p.X * 1000)},{N(p.Y * 1000)}"))));
        if (dashes is not null) line.Add(new XAttribute("stroke-dasharray", dashes));
        return line;
    }
}
