namespace DeepBaize.Web.Drawing;

/// <summary>Where on its line a text begins, is centred, or ends.</summary>
public enum Anchor
{
    Start,
    Middle,
    End,
}

/// <summary>Something to draw on: lengths in mm, the origin at the top left, y downwards; colours as #rrggbb.</summary>
public interface ICanvas
{
    void Rectangle(double x, double y, double width, double height, string fill);

    void Polygon(IReadOnlyList<(double X, double Y)> points, string fill);

    void Disc(double x, double y, double radius, string? fill, string? stroke = null, double width = 0);

    /// <param name="dashes">Lengths of strokes and gaps in turn; null for a full line.</param>
    void Line(IReadOnlyList<(double X, double Y)> points, string stroke, double width, double[]? dashes = null);

    /// <param name="y">Of the base line.</param>
    /// <param name="size">Of the em.</param>
    void Text(double x, double y, double size, string text, string colour, bool bold = false, Anchor anchor = Anchor.Start);
}
