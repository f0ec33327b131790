using System.ComponentModel;
using DeepBaize.Core;
using DeepBaize.Core.Geometry;
using DeepBaize.Core.Photo;
using DeepBaize.Core.Table;

namespace DeepBaize.Web.Photo;

/// <summary>A mark on a known point, or a tap on a ball; px from the picture's left and top.</summary>
public sealed record PictureMark
{
    [Description(
        "Of a mark: baulk-yellow, top-yellow, top-green, baulk-green for where the noses would meet, or a colour for its spot. Of a tap: "
            + "the ball."
    )]
    public required string Name { get; init; }
    public required double U { get; init; }
    public required double V { get; init; }
}

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
}

/// <summary>A ball as it was found.</summary>
/// <param name="Error">By how much it may be off, m: so much or less in 19 cases of 20.</param>
/// <param name="Moved">How far it was moved, m, because it would have lain in another ball or a cushion.</param>
public sealed record FoundBallResult(string Id, double X, double Y, double Error, double Moved);

/// <summary>What was read off a picture.</summary>
/// <param name="Lens">As it fits this picture.</param>
public sealed record PictureResult(IReadOnlyList<FoundBallResult> Balls, Lens Lens);

/// <summary>The table from a photograph: marks and taps are sent, and never the picture.</summary>
public static class PhotoEndpoints
{
    private const int MostMarks = 20;

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
        var marks = new List<(KnownPoint, Pixel)>();
        foreach (var (mark, i) in request.Marks.Select((m, i) => (m, i)))
        {
            var point = KnownPoint.All.FirstOrDefault(p => p.Name == mark.Name);
            checks.That(point is not null, $"marks[{i}].name", "There is no such point.", KnownPoint.AllowedNames);
            CheckPlace(checks, $"marks[{i}]", mark, request);
            if (point is not null)
                marks.Add((point, new(mark.U, mark.V)));
        }
        var taps = new List<(Ball, Pixel)>();
        foreach (var (tap, i) in request.Balls.Select((b, i) => (b, i)))
        {
            var isBall = Ball.TryParse(tap.Name, out var ball);
            checks.That(isBall, $"balls[{i}].name", "There is no such ball.", Ball.AllowedIds);
            checks.That(!isBall || taps.All(t => t.Item1 != ball), $"balls[{i}].name", "It was tapped already.", "each ball once");
            CheckPlace(checks, $"balls[{i}]", tap, request);
            taps.Add((ball, new(tap.U, tap.V)));
        }
        checks.ThrowIfAny();
        var read = PhotoReading.Read((request.Width, request.Height), marks, taps, request.Lens);
        return new(Laid(read.Balls), read.Lens);
    }

    private static void CheckPlace(Checks checks, string path, PictureMark mark, PictureRequest request)
    {
        checks.Range($"{path}.u", mark.U, 0, request.Width, " px");
        checks.Range($"{path}.v", mark.V, 0, request.Height, " px");
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
