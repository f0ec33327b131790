using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Photo;

/// <summary>A point of the table that can be found in a picture; m, z above the cloth.</summary>
public sealed record KnownPoint(string Name, double X, double Y, double Z)
{
    /// <summary>The noses run so high above the cloth: 7/5 of a ball's radius (docs/model.md).</summary>
    public const double NoseHeight = 1.4 * BallRadius;

    /// <summary>Where the lines of two noses would meet at each corner, the spots, and the middles of balls that stand on theirs.</summary>
    public static IReadOnlyList<KnownPoint> All { get; } =
    [
        new("baulk-yellow", 0, 0, NoseHeight),
        new("top-yellow", Length, 0, NoseHeight),
        new("top-green", Length, Width, NoseHeight),
        new("baulk-green", 0, Width, NoseHeight),
        .. Ball.Colours.Select(c => new KnownPoint(c.Id, Spot(c).X, Spot(c).Y, 0)),
        .. Ball.Colours.Select(c => new KnownPoint($"{c.Id}-ball", Spot(c).X, Spot(c).Y, BallRadius)),
    ];

    /// <summary>The names that a mark may have, for messages.</summary>
    public static string AllowedNames => string.Join(", ", All.Select(p => p.Name));
}

/// <summary>A place in a picture, px from its left and its top.</summary>
public readonly record struct Pixel(double U, double V);

/// <summary>Something known that was found in a picture.</summary>
/// <param name="Error">By how much it may be off, px: so much or less in nearly all cases, in any direction.</param>
public sealed record Mark(KnownPoint Point, Pixel At, double Error);

/// <summary>The middle of a ball that was found in a picture.</summary>
/// <param name="Error">As that of a mark.</param>
public sealed record Tap(Ball Ball, Pixel At, double Error);
