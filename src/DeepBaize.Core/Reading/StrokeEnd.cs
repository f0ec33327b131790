using DeepBaize.Core.Physics;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Reading;

/// <summary>What comes of a stroke, as players tell it apart from another.</summary>
/// <param name="White">Where the white stops, m; null if it goes in or off the table.</param>
/// <param name="WhitePocket">The pocket that the white goes into.</param>
/// <param name="First">Slot of the ball that the white meets first, or −1.</param>
/// <param name="Fullness">How full it meets that ball, 1 full to 0; null without a contact.</param>
/// <param name="Ball">Where that ball stops, m; null if it goes in, or there is none.</param>
/// <param name="BallPocket">The pocket that it goes into.</param>
/// <param name="Route">Cushions and balls that the white meets after its first contact.</param>
/// <param name="Gap">Slots of the two balls between which the white passes first after its contact; null if between none.</param>
/// <param name="ComesBack">Whether the white comes back behind the first ball or cushion that it meets, seen from the start.</param>
public sealed record StrokeEnd(
    Vec2? White,
    Pocket? WhitePocket,
    int First,
    double? Fullness,
    Vec2? Ball,
    Pocket? BallPocket,
    Route Route,
    (int One, int Other)? Gap,
    bool ComesBack
)
{
    /// <summary>Two balls farther apart than this are no gap, m between centres.</summary>
    private const double WidestGap = 0.4;

    /// <summary>Less than this is no way back, m.</summary>
    private const double LeastBack = 0.05;

    /// <summary>Reads a stroke that was recorded.</summary>
    public static StrokeEnd Of(ShotRecord record, Simulator after, Layout layout)
    {
        var contact = Contacts.First(record);
        var first = contact is { } c ? c.Ball + c.Other : -1;
        return new(
            White: after.IsOnTable(0) ? after.At(0) : null,
            WhitePocket: after.PocketOf(0),
            First: first,
            Fullness: contact is { } met ? Contacts.Met(record, layout, met)?.Fullness : null,
            Ball: first > 0 && after.IsOnTable(first) ? after.At(first) : null,
            BallPocket: first > 0 ? after.PocketOf(first) : null,
            Route: Route.Of(record),
            Gap: GapOf(record, layout, contact?.Time ?? 0),
            ComesBack: IsBack(record, layout)
        );
    }

    private static bool IsBack(ShotRecord record, Layout layout)
    {
        var turn = record.Events.Find(e => e.IsOfWhiteWithBall || (e.Ball == 0 && e.Kind is ShotEventKind.Cushion or ShotEventKind.Jaw));
        if (turn == default)
            return false;
        var start = layout.White.At;
        var at = record.Pieces.FindLast(p => p.Ball == 0 && p.End <= turn.Time + 1e-9) is { End: > 0 } piece ? piece.To : start;
        var way = at - start;
        return way.Length > 1e-9 && Contacts.StraightWay(record, turn.Time).Any(s => (s.To - at).Dot(way.Unit) < -LeastBack);
    }

    /// <summary>The first gap between two balls that lie still throughout.</summary>
    private static (int One, int Other)? GapOf(ShotRecord record, Layout layout, double from)
    {
        var moved = record.Pieces.Select(p => p.Ball).ToHashSet();
        var still = Enumerable.Range(1, layout.Balls.Count - 1).Where(i => !moved.Contains(i)).ToList();
        var gaps = still
            .SelectMany(i => still.Where(j => j > i), (i, j) => (i, j, Length: layout.Balls[i].At.DistanceTo(layout.Balls[j].At)))
            .Where(g => g.Length is > 4 * BallRadius and <= WidestGap)
            .OrderBy(g => g.Length)
            .ToList();
        if (gaps.Count == 0)
            return null;
        foreach (var way in Contacts.StraightWay(record, from))
            foreach (var (one, other, _) in gaps)
                if (new Segment(layout.Balls[one].At, layout.Balls[other].At).Crossing(way) is not null)
                    return (one, other);
        return null;
    }
}
