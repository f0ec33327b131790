using System.ComponentModel;
using DeepBaize.Core;
using DeepBaize.Core.Photo;
using DeepBaize.Core.Table;

namespace DeepBaize.Web.Photo;

/// <summary>A mark on a known point, or a tap on a ball; px from the picture's left and top.</summary>
public sealed record PictureMark
{
    [Description(
        "Of a mark: baulk-yellow, top-yellow, top-green, baulk-green for where the noses would meet, a colour for its spot, a colour and "
            + "-ball for the middle of that ball on its spot. Of a tap: the ball."
    )]
    public required string Name { get; init; }
    public required double U { get; init; }
    public required double V { get; init; }

    [Description("By how much it may be off, px: so much or less nearly always. Two of a picture 1,600 wide if it is not said.")]
    public double? Error { get; init; }
}

/// <summary>A place in a picture, px from its left and top.</summary>
public sealed record PicturePlace(double U, double V);

/// <summary>Marks and taps on a picture; the picture itself stays where it is.</summary>
public sealed record PictureRequest
{
    [Description("Of the picture, px.")]
    public required double Width { get; init; }
    public required double Height { get; init; }
    public required IReadOnlyList<PictureMark> Marks { get; init; }
    public required IReadOnlyList<PictureMark> Balls { get; init; }

    [Description("What is known of the camera's lens, from an earlier picture.")]
    public Lens? Lens { get; init; }

    [Description("Places along edges that are straight on the table, as cushions': they tell how the lens bends. 5 to 100 of each.")]
    public IReadOnlyList<IReadOnlyList<PicturePlace>> Straight { get; init; } = [];
}

/// <summary>A ball as it was found.</summary>
/// <param name="Error">By how much it may be off, m: so much or less in 19 cases of 20.</param>
/// <param name="Moved">How far it was moved, m, because it would have lain in another ball or a cushion.</param>
public sealed record FoundBallResult(string Id, double X, double Y, double Error, double Moved);

/// <summary>What was read off a picture.</summary>
/// <param name="Lens">As it fits this picture.</param>
/// <param name="BallSize">How large a ball is drawn, by where it is in the picture.</param>
public sealed record PictureResult(IReadOnlyList<FoundBallResult> Balls, Lens Lens, BallSize BallSize);

/// <summary>The table from a photograph: marks and taps are sent, and never the picture.</summary>
public static class PhotoEndpoints
{
    private const int MostMarks = 20,
        MostEdges = 8,
        FewestPlaces = 5,
        MostPlaces = 100;

    public static void MapPhoto(this IEndpointRouteBuilder app) =>
        app.MapPost("/api/photo", Read)
            .WithTags("Photo")
            .WithName("readPhoto")
            .WithSummary("Where balls lie that were tapped on a picture, by marks on known points of it")
            .ProducesProblem(400);

    private static PictureResult Read(PictureRequest request)
    {
        var checks = new Checks();
        checks.Range("width", request.Width, 100, 20_000, " px");
        checks.Range("height", request.Height, 100, 20_000, " px");
        checks.That(request.Marks.Count <= MostMarks, "marks", $"There are {request.Marks.Count} marks.", $"at most {MostMarks}");
        checks.That(request.Balls.Count <= Ball.Count, "balls", $"There are {request.Balls.Count} balls.", $"at most {Ball.Count}");
        checks.ThrowIfAny();
        var usual = PhotoReading.UsualError(request.Width);
        var marks = new List<Mark>();
        foreach (var (mark, i) in request.Marks.Select((m, i) => (m, i)))
        {
            var point = KnownPoint.All.FirstOrDefault(p => p.Name == mark.Name);
            checks.That(point is not null, $"marks[{i}].name", "There is no such point.", KnownPoint.AllowedNames);
            CheckMark(checks, $"marks[{i}]", mark, request);
            if (point is not null)
                marks.Add(new(point, new(mark.U, mark.V), mark.Error ?? usual));
        }
        var taps = new List<Tap>();
        foreach (var (tap, i) in request.Balls.Select((b, i) => (b, i)))
        {
            var isBall = Ball.TryParse(tap.Name, out var ball);
            checks.That(isBall, $"balls[{i}].name", "There is no such ball.", Ball.AllowedIds);
            checks.That(!isBall || taps.All(t => t.Ball != ball), $"balls[{i}].name", "This ball was tapped already.", "each ball once");
            CheckMark(checks, $"balls[{i}]", tap, request);
            taps.Add(new(ball, new(tap.U, tap.V), tap.Error ?? usual));
        }
        var straight = Edges(checks, request);
        checks.ThrowIfAny();
        var read = PhotoReading.Read((request.Width, request.Height), marks, taps, request.Lens, straight);
        return new(Laid(read.Balls), read.Lens, read.BallSize);
    }

    private static List<List<Pixel>> Edges(Checks checks, PictureRequest request)
    {
        checks.That(request.Straight.Count <= MostEdges, "straight", $"There are {request.Straight.Count} edges.", $"at most {MostEdges}");
        foreach (var (edge, i) in request.Straight.Select((e, i) => (e, i)))
        {
            checks.That(
                edge.Count is >= FewestPlaces and <= MostPlaces,
                $"straight[{i}]",
                $"There are {edge.Count} places.",
                $"{FewestPlaces} to {MostPlaces}"
            );
            foreach (var (place, k) in edge.Take(MostPlaces).Select((p, k) => (p, k)))
                CheckPlace(checks, $"straight[{i}][{k}]", place, request);
        }
        return [.. request.Straight.Select(e => e.Select(p => new Pixel(p.U, p.V)).ToList())];
    }

    private static void CheckPlace(Checks checks, string path, PicturePlace place, PictureRequest request)
    {
        checks.Range($"{path}.u", place.U, 0, request.Width, " px");
        checks.Range($"{path}.v", place.V, 0, request.Height, " px");
    }

    private static void CheckMark(Checks checks, string path, PictureMark mark, PictureRequest request)
    {
        CheckPlace(checks, path, new(mark.U, mark.V), request);
        if (mark.Error is { } error)
            checks.Range($"{path}.error", error, 0.1, 100, " px");
    }

    /// <summary>Each as near as it can rest to where it was found; those that are known best first.</summary>
    private static List<FoundBallResult> Laid(IReadOnlyList<FoundBall> found)
    {
        var shape = new TableShape(Conditions.Default);
        var (laid, results) = (new List<PlacedBall>(), new List<FoundBallResult>());
        foreach (var ball in found.OrderBy(b => b.Error))
        {
            var place = Placement.Nearest(new(ball.X, ball.Y), laid, shape) ?? new Vec2(ball.X, ball.Y);
            laid.Add(new(ball.Ball, place));
            results.Add(new(ball.Ball.Id, place.X, place.Y, ball.Error, place.DistanceTo(new(ball.X, ball.Y))));
        }
        return results;
    }
}
