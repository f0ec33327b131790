using System.Globalization;
using System.Xml.Linq;

namespace DeepBaize.Web.Drawing;

/// <summary>Draws an SVG; one user unit is a millimetre, or, printed smaller, a part of one.</summary>
public sealed class SvgCanvas : ICanvas
{
    private static readonly XNamespace Svg = "http://www.w3.org/2000/svg";
    private readonly XElement _root;

    public SvgCanvas(double width, double height, string title, string description, double printed = 1) =>
        _root = new(
            Svg + "svg",
            new XAttribute("viewBox", $"0 0 {N(width)} {N(height)}"),
            new XAttribute("width", $"{N(width * printed)}mm"),
            new XAttribute("height", $"{N(height * printed)}mm"),
            new XAttribute("font-family", "'Source Sans 3', 'Source Sans Pro', sans-serif"),
            new XElement(Svg + "title", Printable(title)),
            new XElement(Svg + "desc", Printable(description))
        );

    public override string ToString() => _root.ToString();

    public void Rectangle(double x, double y, double width, double height, string fill) =>
        Add("rect", ("x", N(x)), ("y", N(y)), ("width", N(width)), ("height", N(height)), ("fill", fill));

    public void Polygon(IReadOnlyList<(double X, double Y)> points, string fill) =>
        Add("polygon", ("points", Points(points)), ("fill", fill));

    public void Disc(double x, double y, double radius, string? fill, string? stroke = null, double width = 0) =>
        Add(
            "circle",
            ("cx", N(x)),
            ("cy", N(y)),
            ("r", N(radius)),
            ("fill", fill ?? "none"),
            ("stroke", stroke),
            ("stroke-width", stroke is null ? null : N(width))
        );

    public void Line(IReadOnlyList<(double X, double Y)> points, string stroke, double width, double[]? dashes = null) =>
        Add(
            "polyline",
            ("points", Points(points)),
            ("fill", "none"),
            ("stroke", stroke),
            ("stroke-width", N(width)),
            ("stroke-linejoin", "round"),
            ("stroke-dasharray", dashes is null ? null : string.Join(' ', dashes.Select(N)))
        );

    public void Text(double x, double y, double size, string text, string colour, bool bold = false, Anchor anchor = Anchor.Start)
    {
        var element = Add(
            "text",
            ("x", N(x)),
            ("y", N(y)),
            ("font-size", N(size)),
            ("fill", colour),
            ("font-weight", bold ? "600" : null),
            (
                "text-anchor",
                anchor switch
                {
                    Anchor.Middle => "middle",
                    Anchor.End => "end",
                    _ => null,
                }
            )
        );
        element.Value = Printable(text);
    }

    private XElement Add(string name, params (string Name, string? Value)[] attributes)
    {
        var element = new XElement(Svg + name, attributes.Where(a => a.Value is not null).Select(a => new XAttribute(a.Name, a.Value!)));
        _root.Add(element);
        return element;
    }

    private static string Points(IReadOnlyList<(double X, double Y)> points) => string.Join(' ', points.Select(p => $"{N(p.X)},{N(p.Y)}"));

    private static string N(double value) => Math.Round(value, 2).ToString(CultureInfo.InvariantCulture);

    /// <summary>Without what XML cannot hold.</summary>
    private static string Printable(string text) => string.Concat(text.Where(System.Xml.XmlConvert.IsXmlChar));
}
