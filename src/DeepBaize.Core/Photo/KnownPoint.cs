using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Photo;

/// <summary>A point of the table that can be found in a picture; m, z above the cloth.</summary>
public sealed record KnownPoint(string Name, double X, double Y, double Z)
{
    /// <summary>The noses run so high above the cloth: 7/5 of a ball's radius (docs/model.md).</summary>
    public const double NoseHeight = 1.4 * BallRadius;

    /// <summary>Where the lines of two noses would meet at each corner, and the spots.</summary>
    public static IReadOnlyList<KnownPoint> All { get; } =
    [
        new("baulk-yellow", 0, 0, NoseHeight),
        new("top-yellow", Length, 0, NoseHeight),
        new("top-green", Length, Width, NoseHeight),
        new("baulk-green", 0, Width, NoseHeight),
        .. Ball.Colours.Select(c => new KnownPoint(c.Id, Spot(c).X, Spot(c).Y, 0)),
    ];

    public static string AllowedNames => string.Join(", ", All.Select(p => p.Name));
}

/// <summary>A place in a picture, px from its left and its top.</summary>
public readonly record struct Pixel(double U, double V);
