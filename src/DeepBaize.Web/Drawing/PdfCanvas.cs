using SkiaSharp;

namespace DeepBaize.Web.Drawing;

/// <summary>Draws the pages of a PDF, one after the other.</summary>
public sealed class PdfCanvas : ICanvas, IDisposable
{
    private const float PointsPerMillimetre = 72 / 25.4f;

    // The fonts that ship with the application (SIL Open Font License, Fonts/OFL.txt).
    private static readonly SKTypeface Regular = Font("SourceSans3-Regular"),
        SemiBold = Font("SourceSans3-SemiBold");

    private readonly MemoryStream _stream = new();
    private readonly SKDocument _document;
    private readonly float _width,
        _height;
    private SKCanvas _page;
    private double _down;

    /// <param name="width">mm, as the height.</param>
    public PdfCanvas(double width, double height, string title)
    {
        _document = SKDocument.CreatePdf(
            _stream,
            new SKDocumentPdfMetadata
            {
                Title = title,
                Creator = "Deep Baize",
                RasterDpi = 300,
            }
        );
        (_width, _height) = ((float)width * PointsPerMillimetre, (float)height * PointsPerMillimetre);
        _page = Begin();
    }

    /// <summary>Ends the page and begins another of the same size.</summary>
    public void NextPage()
    {
        _document.EndPage();
        _page = Begin();
    }

    /// <summary>From here on everything on this page is drawn so far down it, mm.</summary>
    public void Down(double y)
    {
        _page.Translate(0, (float)(y - _down));
        _down = y;
    }

    private SKCanvas Begin()
    {
        var page = _document.BeginPage(_width, _height);
        _down = 0;
        page.Scale(PointsPerMillimetre);
        return page;
    }

    /// <summary>Ends the page; nothing can be drawn after that.</summary>
    public byte[] ToBytes()
    {
        _document.EndPage();
        _document.Close();
        return _stream.ToArray();
    }

    public void Dispose()
    {
        _document.Dispose();
        _stream.Dispose();
    }

    public void Rectangle(double x, double y, double width, double height, string fill)
    {
        using var paint = Fill(fill);
        _page.DrawRect((float)x, (float)y, (float)width, (float)height, paint);
    }

    public void Polygon(IReadOnlyList<(double X, double Y)> points, string fill)
    {
        using var paint = Fill(fill);
        using var path = Path(points);
        _page.DrawPath(path, paint);
    }

    public void Disc(double x, double y, double radius, string? fill, string? stroke = null, double width = 0)
    {
        if (fill is not null)
        {
            using var paint = Fill(fill);
            _page.DrawCircle((float)x, (float)y, (float)radius, paint);
        }
        if (stroke is null)
            return;
        using var pen = Pen(stroke, width);
        _page.DrawCircle((float)x, (float)y, (float)radius, pen);
    }

    public void Line(IReadOnlyList<(double X, double Y)> points, string stroke, double width, double[]? dashes = null)
    {
        if (points.Count < 2)
            return;
        using var pen = Pen(stroke, width);
        using var effect = dashes is null ? null : SKPathEffect.CreateDash([.. dashes.Select(d => (float)d)], 0);
        pen.PathEffect = effect;
        using var path = Path(points);
        _page.DrawPath(path, pen);
    }

    public void Text(double x, double y, double size, string text, string colour, bool bold = false, Anchor anchor = Anchor.Start)
    {
        // Sizes are in millimetres, a few units each: unhinted, or the letters would be set to whole units.
        using var font = new SKFont(bold ? SemiBold : Regular, (float)size)
        {
            Subpixel = true,
            LinearMetrics = true,
            Hinting = SKFontHinting.None,
        };
        using var paint = Fill(colour);
        _page.DrawText(
            text,
            (float)x,
            (float)y,
            anchor switch
            {
                Anchor.Middle => SKTextAlign.Center,
                Anchor.End => SKTextAlign.Right,
                _ => SKTextAlign.Left,
            },
            font,
            paint
        );
    }

    private static SKPaint Fill(string colour) => new() { Color = SKColor.Parse(colour), IsAntialias = true };

    private static SKPaint Pen(string colour, double width) =>
        new()
        {
            Color = SKColor.Parse(colour),
            StrokeWidth = (float)width,
            Style = SKPaintStyle.Stroke,
            StrokeJoin = SKStrokeJoin.Round,
            IsAntialias = true,
        };

    private static SKPath Path(IReadOnlyList<(double X, double Y)> points)
    {
        using var builder = new SKPathBuilder();
        builder.AddPoly([.. points.Select(p => new SKPoint((float)p.X, (float)p.Y))], close: false);
        return builder.Detach();
    }

    private static SKTypeface Font(string name)
    {
        using var stream = typeof(PdfCanvas).Assembly.GetManifestResourceStream($"{name}.ttf")
            ?? throw new InvalidOperationException($"The font {name} is not in the assembly.");
        return SKTypeface.FromStream(stream);
    }
}
