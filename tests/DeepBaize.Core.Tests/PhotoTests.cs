using DeepBaize.Core.Photo;
using DeepBaize.Core.Table;
using MathNet.Numerics.LinearAlgebra.Double;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests;

/// <summary>Drawn pictures from known cameras, with marks and taps that are off as a thumb's are.</summary>
public class PhotoTests(ITestOutputHelper output)
{
    private static readonly (double Width, double Height) Size = (1600, 1200);

    /// <summary>A camera at a place, m, that looks at another; its own formulas apart from those that are tested.</summary>
    private static Func<double, double, double, Pixel> Seen(double[] eye, double[] at, double focal, double bend)
    {
        var ahead = DenseVector.OfArray([at[0] - eye[0], at[1] - eye[1], at[2] - eye[2]]).Normalize(2);
        var right = Cross(ahead, DenseVector.OfArray([0, 0, 1])).Normalize(2);
        var down = Cross(ahead, right);
        return (x, y, z) =>
        {
            var to = DenseVector.OfArray([x - eye[0], y - eye[1], z - eye[2]]);
            var (a, b) = (to.DotProduct(right) / to.DotProduct(ahead), to.DotProduct(down) / to.DotProduct(ahead));
            var bent = 1 + bend * (a * a + b * b);
            return new(Size.Width / 2 + focal * a * bent, Size.Height / 2 + focal * b * bent);
        };
    }

    private static MathNet.Numerics.LinearAlgebra.Vector<double> Cross(
        MathNet.Numerics.LinearAlgebra.Vector<double> a,
        MathNet.Numerics.LinearAlgebra.Vector<double> b
    ) => DenseVector.OfArray([a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]]);

    private static readonly string[] Corners = ["baulk-yellow", "top-yellow", "top-green", "baulk-green"];

    /// <summary>A ball's middle as it is found in the picture itself (web/src/features/photo/findBall.test.ts), px.</summary>
    private const double Found = 0.5;

    /// <summary>How far places over the whole table are off, m, and how many stay within what is told.</summary>
    /// <param name="thumb">By how much marks are off at most, px; those on balls by what a found middle is.</param>
    /// <param name="tap">By how much taps are.</param>
    private static (double[] Worst, double[] All, double Told) Errors(
        Func<double, double, double, Pixel> seen,
        IReadOnlyList<string> on,
        double thumb,
        double tap,
        int pictures,
        Lens? lens = null,
        bool isTraced = false
    )
    {
        var random = new Random(5);
        // Off by so many pixels at most, in any direction.
        Pixel Off(Pixel p, double pixels)
        {
            var (way, far) = (random.NextDouble() * 2 * Math.PI, pixels * Math.Sqrt(random.NextDouble()));
            return new(p.U + far * Math.Cos(way), p.V + far * Math.Sin(way));
        }
        // An edge of each cushion, and not its nose: which one is traced does not matter, as long as it is straight.
        List<List<Pixel>> Traced(Func<Pixel, Pixel> off)
        {
            const double back = 0.05;
            List<Pixel> Edge(Func<double, (double X, double Y)> at) =>
                [.. Enumerable.Range(0, 30).Select(i => at(0.12 + 0.76 * i / 29)).Select(p => off(seen(p.X, p.Y, KnownPoint.NoseHeight)))];
            return
            [
                Edge(t => (t * Length, -back)),
                Edge(t => (t * Length, Width + back)),
                Edge(t => (-back, t * Width)),
                Edge(t => (Length + back, t * Width)),
            ];
        }
        var (worst, all, within) = (new List<double>(), new List<double>(), 0);
        for (var i = 0; i < pictures; i++)
        {
            var marks = on.Select(name => (Point: KnownPoint.All.Single(p => p.Name == name), Off: name.EndsWith("-ball") ? tap : thumb))
                .Select(m => new Mark(m.Point, Off(seen(m.Point.X, m.Point.Y, m.Point.Z), m.Off), Math.Max(0.1, m.Off)))
                .ToList();
            var places = Enumerable
                .Range(0, 21)
                .Select(k => (X: 0.1 + (Length - 0.2) * (k % 7) / 6, Y: 0.1 + (Width - 0.2) * (k / 7) / 2))
                .ToList();
            var taps = places
                .Select((p, k) => new Tap(Ball.FromIndex(k), Off(seen(p.X, p.Y, BallRadius), tap), Math.Max(0.1, tap)))
                .ToList();
            var found = PhotoReading.Read(Size, marks, taps, lens, isTraced ? Traced(p => Off(p, 1)) : null).Balls;
            var errors = found
                .Zip(places)
                .Select(f => Math.Sqrt(Math.Pow(f.First.X - f.Second.X, 2) + Math.Pow(f.First.Y - f.Second.Y, 2)))
                .ToList();
            worst.Add(errors.Max());
            all.AddRange(errors);
            within += errors.Zip(found).Count(e => e.First <= e.Second.Error);
        }
        return ([.. worst.Order()], [.. all.Order()], within / (double)all.Count);
    }

    public static TheoryData<string, double[], double[], double, double> Cameras =>
        new()
        {
            { "from a ladder by the side", [1.78, -1.3, 2.6], [1.78, 0.75, 0], 1150, -0.04 },
            { "held up high at the side", [1.5, -1.0, 3.0], [1.75, 0.85, 0], 1300, 0.03 },
            { "from under the lamp", [1.78, 0.7, 3.3], [1.78, 0.889, 0], 1300, -0.06 },
        };

    [Theory]
    [MemberData(nameof(Cameras))]
    public void Without_errors_the_places_are_exact_height_and_lens_allowed_for(
        string how,
        double[] eye,
        double[] at,
        double focal,
        double bend
    )
    {
        var (worst, _, _) = Errors(Seen(eye, at, focal, bend), [.. KnownPoint.All.Select(p => p.Name)], 0, 0, 1);
        Assert.True(worst[^1] < 0.001, $"{how}: {worst[^1] * 1000:0.00} mm");
    }

    /// <summary>
    /// Marks by the thumb, off by up to two pixels of 1,600; balls' middles and the cushions' edges as they are found in the picture. Where
    /// nothing is found in it, taps are off by as much as marks, and it is told how far off balls may then be (docs/practice.md).
    /// </summary>
    [Theory]
    [MemberData(nameof(Cameras))]
    public void With_marks_off_by_two_pixels_places_over_the_whole_table_are_within_eight_millimetres(
        string how,
        double[] eye,
        double[] at,
        double focal,
        double bend
    )
    {
        var seen = Seen(eye, at, focal, bend);
        const int pictures = 60;
        var runs = new[]
        {
            ("four corners", Errors(seen, Corners, 2, Found, pictures, isTraced: true)),
            ("no edge, but three spots", Errors(seen, [.. Corners, "brown", "blue", "black"], 2, Found, pictures)),
            (
                "no edge, but three balls on their spots",
                Errors(seen, [.. Corners, "blue-ball", "pink-ball", "black-ball"], 2, Found, pictures)
            ),
            ("no edge, but a known lens", Errors(seen, Corners, 2, Found, pictures, new(focal / Size.Width, bend))),
        };
        foreach (var (with, (_, all, told)) in runs)
        {
            var (median, most) = (all[all.Length / 2] * 1000, all[(int)(0.95 * all.Length)] * 1000);
            output.WriteLine($"{how}, {with}: median {median:0.0}, 95 % {most:0.0} mm");
            Assert.True(most < 8, $"{how}, {with}: median {median:0.0}, 95 % {most:0.0} mm");
            Assert.InRange(told, 0.9, 1);
        }
        Assert.InRange(Errors(seen, Corners, 2, 2, pictures).Told, 0.9, 1);
    }

    [Theory]
    [MemberData(nameof(Cameras))]
    public void How_large_a_ball_is_drawn_is_told_by_where_it_is(string how, double[] eye, double[] at, double focal, double bend)
    {
        var seen = Seen(eye, at, focal, bend);
        var marks = KnownPoint.All.Select(p => new Mark(p, seen(p.X, p.Y, p.Z), 0.1)).ToList();
        var size = PhotoReading.Read(Size, marks, []).BallSize;
        foreach (var (x, y) in new[] { (0.2, 0.2), (1.8, 0.9), (3.3, 1.5) })
        {
            var (middle, to) = (seen(x, y, BallRadius), Math.Sqrt(Math.Pow(x - eye[0], 2) + Math.Pow(y - eye[1], 2)));
            // Level and square to the line of sight: as wide as the ball itself.
            var edge = seen(x - BallRadius * (y - eye[1]) / to, y + BallRadius * (x - eye[0]) / to, BallRadius);
            var drawn = Math.Sqrt(Math.Pow(edge.U - middle.U, 2) + Math.Pow(edge.V - middle.V, 2));
            var told = size.At + size.ByU * middle.U + size.ByV * middle.V;
            // Away from the picture's middle a sphere is drawn longer, and the lens bends: what looks for it allows for that.
            Assert.True(Math.Abs(told / drawn - 1) < 0.15, $"{how}: {told:0.0} for {drawn:0.0} px");
        }
    }

    [Fact]
    public void Marks_that_are_named_for_other_points_are_refused()
    {
        var seen = Seen([1.78, -1.3, 2.6], [1.78, 0.75, 0], 1150, 0);
        var marks = Corners
            .Append("blue")
            .Zip([.. Corners.Reverse(), "pink"])
            .Select(p => (KnownPoint.All.Single(k => k.Name == p.First), KnownPoint.All.Single(k => k.Name == p.Second)))
            .Select(p => new Mark(p.Item1, seen(p.Item2.X, p.Item2.Y, p.Item2.Z), 2))
            .ToList();
        Assert.Throws<InputException>(() => PhotoReading.Read(Size, marks, [new(Ball.White, new(800, 600), 2)]));
        Assert.Throws<InputException>(() => PhotoReading.Read(Size, [.. marks.Take(3)], []));
    }
}
