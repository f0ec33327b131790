using DeepBaize.Core.Play;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Scoring;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Camera;

/// <summary>
/// Writes a stroke that a camera saw into the record of its frame. What no camera sees is taken as it mostly is: the colour that was named
/// is the one that was struck first, nobody calls a miss, and a ball that was not potted was played at if it went to a pocket.
/// </summary>
public static class FrameScribe
{
    /// <summary>A ball on that comes so near to a pocket was to go in, m from the middle of its drop.</summary>
    private const double PlayedAt = 0.16;

    /// <exception cref="InputException">The frame is over, or cannot have these balls.</exception>
    public static RecordedShot Of(Frame frame, WatchedStroke stroke)
    {
        if (frame.IsOver || frame.AwaitsLot)
            throw new InputException(
                "frame",
                frame.IsOver ? "The frame is over." : "It is not yet said who plays first.",
                "a frame that goes on"
            );
        var reds = stroke.Gone.Count(g => g.Ball.IsRed);
        if (reds > frame.Reds)
            throw new InputException("stroke", $"{reds} reds went, and the frame has {frame.Reds}.", "a frame that is as the table is");
        List<Ball> colours = [.. stroke.Gone.Select(g => g.Ball).Where(b => b.IsColour)];
        if (colours.Find(c => !frame.Colours.Contains(c)) is { IsColour: true } absent)
            throw new InputException("stroke", $"The {absent.Id} went, and the frame has none.", "a frame that is as the table is");
        // Which red it was is all the same, but it must be one of those that the frame has.
        var first = stroke.First is { IsRed: true } ? Ball.Red(1) : stroke.First;
        var isIn = stroke.Gone.Any(g => g.Ball == Ball.White);
        List<Ball> gone = [.. Enumerable.Range(1, reds).Select(Ball.Red), .. colours];
        if (isIn)
            gone.Add(Ball.White);
        var free = frame.FreeBall && first is { } named && !frame.IsOn(named) ? first : null;
        var ruling = Referee.Rule(frame, new(first, gone, free));
        var white = stroke.White is { } w ? new Place(w.X, w.Y) : null;
        if (ruling.IsFoul)
            return new()
            {
                Kind = ShotKind.Foul,
                Penalty = ruling.Penalty,
                RedsLost = reds,
                InOff = isIn,
                FreeBall = LeavesSnookered(stroke, ruling),
                White = white,
            };
        List<string> potted = [.. gone.Select(b => b.IsRed ? "red" : b.Id)];
        var kind =
            potted.Count > 0 ? ShotKind.Pot
            : WasPlayedAt(stroke) ? ShotKind.Miss
            : ShotKind.Safety;
        return new()
        {
            Kind = kind,
            Potted = potted,
            White = white,
        };
    }

    /// <summary>Whether the ball that was struck first went near a pocket before it met anything else that turned it.</summary>
    private static bool WasPlayedAt(WatchedStroke stroke)
    {
        if (stroke.Paths.FirstOrDefault(p => p.Ball == stroke.First) is not { } path || path.Points.Count < 2)
            return false;
        var drops = Drops;
        var way = new Geometry.Segment(path.Points[0].At, path.Points[1].At);
        return drops.Any(d => way.DistanceTo(d) < PlayedAt);
    }

    private static IReadOnlyList<Vec2> Drops { get; } = [.. new TableShape(Conditions.Default).PocketShapes.Select(p => p.Drop.Centre)];

    private static bool LeavesSnookered(WatchedStroke stroke, Ruling ruling)
    {
        var next = ruling.NextFrame;
        if (next.IsOver || next.AwaitsLot)
            return false;
        List<PlacedBall> left = [.. stroke.After];
        left.AddRange(Spotting.Place(next.Colours.Where(c => left.TrueForAll(b => b.Ball != c)), left));
        if (left.TrueForAll(b => b.Ball != Ball.White))
            left.Add(new(Ball.White, Dimensions.DCentre));
        return Situation.IsHidden(Layout.OfRest(left), next);
    }
}
