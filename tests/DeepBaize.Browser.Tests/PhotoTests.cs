using System.Globalization;
using System.Text;
using System.Text.Json;
using OpenQA.Selenium;

namespace DeepBaize.Browser.Tests;

/// <summary>The table from a photograph: drawn from a known camera, with a lens that bends, marked and tapped on the page.</summary>
[Collection("desk")]
[BrowsersGoBack]
public class PhotoTests(Desk desk)
{
    // Sizes by the rules of the game, m (docs/model.md): written out, for the picture is no work of ours.
    private const double Length = 3.569,
        Width = 1.778,
        Radius = 0.02625,
        Nose = 1.4 * Radius;
    private const int Across = 1600,
        Down = 1200;

    private static readonly Dictionary<string, (double X, double Y, string Fill)> Balls = new()
    {
        ["white"] = (0.52, 1.21, "#e8e4cd"),
        ["red-1"] = (0.33, 0.31, "#96161c"),
        ["red-2"] = (3.31, 0.27, "#96161c"),
        ["red-3"] = (3.18, 1.55, "#96161c"),
        ["red-4"] = (1.81, 1.62, "#96161c"),
        ["red-5"] = (2.05, 0.19, "#96161c"),
        ["pink"] = (2.44, 0.95, "#de8094"),
        ["green"] = (1.12, 0.74, "#104e34"),
    };

    /// <summary>A phone held up at the side, m, and what it looks at.</summary>
    private static readonly double[] Eye = [1.7, -1.05, 2.8],
        LooksAt = [1.8, 0.8, 0];

    /// <summary>Where a point of the table is in the picture, px.</summary>
    private static (double U, double V) Seen(double x, double y, double z)
    {
        const double focal = 1230,
            bend = -0.045;
        var ahead = Unit([LooksAt[0] - Eye[0], LooksAt[1] - Eye[1], LooksAt[2] - Eye[2]]);
        var right = Unit(Cross(ahead, [0, 0, 1]));
        var down = Cross(ahead, right);
        double[] to = [x - Eye[0], y - Eye[1], z - Eye[2]];
        var (a, b) = (Dot(to, right) / Dot(to, ahead), Dot(to, down) / Dot(to, ahead));
        var bent = 1 + bend * (a * a + b * b);
        return (Across / 2 + focal * a * bent, Down / 2 + focal * b * bent);
    }

    private static double Dot(double[] a, double[] b) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

    private static double[] Cross(double[] a, double[] b) =>
        [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];

    private static double[] Unit(double[] a) => [.. a.Select(x => x / Math.Sqrt(Dot(a, a)))];

    /// <summary>A level stretch of the table, so far beyond the noses, its sides bent as the lens bends them.</summary>
    private static string Stretch(double beyond, double z, string fill)
    {
        (double X, double Y)[] corners =
        [
            (-beyond, -beyond),
            (Length + beyond, -beyond),
            (Length + beyond, Width + beyond),
            (-beyond, Width + beyond),
        ];
        var points = corners.SelectMany(
            (from, i) =>
            {
                var to = corners[(i + 1) % 4];
                return Enumerable.Range(0, 40).Select(k => Seen(from.X + (to.X - from.X) * k / 40, from.Y + (to.Y - from.Y) * k / 40, z));
            }
        );
        return Polygon(points, fill);
    }

    private static string Invariant(FormattableString text) => text.ToString(CultureInfo.InvariantCulture);

    /// <summary>A ball's outline: the circle of the sphere that lies square to the line of sight.</summary>
    private static string Outline(double x, double y, double grow, string fill)
    {
        var ahead = Unit([x - Eye[0], y - Eye[1], Radius - Eye[2]]);
        var right = Unit(Cross(ahead, [0, 0, 1]));
        var down = Cross(ahead, right);
        var points = Enumerable
            .Range(0, 48)
            .Select(k => (Right: grow * Radius * Math.Cos(k * Math.PI / 24), Down: grow * Radius * Math.Sin(k * Math.PI / 24)))
            .Select(p => (double[])[.. Enumerable.Range(0, 3).Select(i => p.Right * right[i] + p.Down * down[i])])
            .Select(p => Seen(x + p[0], y + p[1], Radius + p[2]));
        return Polygon(points, fill);
    }

    private static string Polygon(IEnumerable<(double U, double V)> points, string fill) =>
        $"<polygon points=\"{string.Join(' ', points.Select(p => Invariant($"{p.U:0.00},{p.V:0.00}")))}\" fill=\"{fill}\"/>";

    private static string Drawn()
    {
        var svg = new StringBuilder(
            $"<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{Across}\" height=\"{Down}\" viewBox=\"0 0 {Across} {Down}\">"
                + "<filter id=\"soft\"><feGaussianBlur stdDeviation=\"4\"/></filter>"
                + $"<rect width=\"{Across}\" height=\"{Down}\" fill=\"#3a3230\"/>"
        );
        svg.Append(Stretch(0.15, Nose + 0.005, "#4b3122")).Append(Stretch(0.05, Nose, "#2b7a48")).Append(Stretch(0, Nose, "#266c3e"));
        foreach (var (x, y, fill) in Balls.Values)
        {
            // The lamps are long: shadows are soft.
            svg.Append("<g filter=\"url(#soft)\">")
                .Append(Outline(x, y - 0.008, 1.1, "#1d5430"))
                .Append("</g>")
                .Append(Outline(x, y, 1, fill));
            var (u, v) = Seen(x + 0.004, y + 0.004, 1.8 * Radius);
            svg.Append(Invariant($"<circle cx=\"{u:0.0}\" cy=\"{v:0.0}\" r=\"2\" fill=\"#fff\"/>"));
        }
        return svg.Append("</svg>").ToString();
    }

    [Fact]
    public void Balls_lie_within_eight_millimetres_of_where_they_were_though_marks_and_taps_are_off_by_two_pixels()
    {
        var file = Path.Combine(Directory.CreateTempSubdirectory("deep-baize-picture-").FullName, "table.svg");
        File.WriteAllText(file, Drawn());
        var page = desk.Open(1920, 1080);
        page.Visit("/photo");
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-testid=photo-file]")).Count == 1);
        page.Driver.FindElement(By.CssSelector("[data-testid=photo-file]")).SendKeys(file);
        var picture = page.Find("picture");
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-testid=picture] .mark")).Count == 4);

        // Two pixels of the picture off, each in another direction.
        var turn = 0;
        (double U, double V) Off((double U, double V) p) => (p.U + 2 * Math.Cos(1.3 * ++turn), p.V + 2 * Math.Sin(1.3 * turn));
        void Touch((double U, double V)? from, (double U, double V) to)
        {
            // Pointer events with parts of a pixel, which a finger has and Selenium's mouse has not.
            page.Driver.ExecuteScript(
                """
                const [svg, from, to] = arguments;
                const send = (type, [u, v]) => {
                  const at = new DOMPoint(u, v).matrixTransform(svg.getScreenCTM());
                  svg.dispatchEvent(new PointerEvent(type, { pointerId: 1, button: 0, clientX: at.x, clientY: at.y, bubbles: true }));
                };
                svg.setPointerCapture = () => {};
                send('pointerdown', from); send('pointermove', to); send('pointerup', to);
                """,
                picture,
                new[] { (from ?? to).U, (from ?? to).V },
                new[] { to.U, to.V }
            );
        }
        (double U, double V)[] begin = [(0.12, 0.8), (0.88, 0.8), (0.75, 0.25), (0.25, 0.25)];
        (double X, double Y)[] corners = [(0, 0), (Length, 0), (Length, Width), (0, Width)];
        foreach (var (from, (x, y)) in begin.Zip(corners))
            Touch((from.U * Across, from.V * Down), Off(Seen(x, y, Nose)));
        page.Click(() => page.Find("marks-done"));
        foreach (var (name, (x, y, _)) in Balls)
        {
            page.Click(() => page.Find(name.StartsWith("red", StringComparison.Ordinal) ? "hold-red" : $"hold-{name}"));
            Touch(null, Off(Seen(x, y, Radius)));
        }
        page.Click(() => page.Find("read-photo"));
        page.Find("photo-error");
        page.Click(() => page.Find("lay-photo"));
        page.Until(() => page.Path.EndsWith("/read", StringComparison.Ordinal));
        var laid = JsonDocument
            .Parse((string)page.Driver.ExecuteScript("return sessionStorage['deep-baize-draft']")!)
            .RootElement.GetProperty("draft")
            .GetProperty("content")
            .GetProperty("balls")
            .EnumerateArray()
            .ToDictionary(
                b => b.GetProperty("id").GetString()!,
                b => (X: b.GetProperty("x").GetDouble(), Y: b.GetProperty("y").GetDouble())
            );
        Assert.All(Balls, b =>
        {
            var (x, y) = laid[b.Key];
            var off = Math.Sqrt(Math.Pow(x - b.Value.X, 2) + Math.Pow(y - b.Value.Y, 2));
            Assert.True(off < 0.008, $"{b.Key} is off by {off * 1000:0.0} mm");
        });
    }
}
