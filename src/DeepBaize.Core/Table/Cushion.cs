using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Table;

/// <summary>The four cushions; the sides are named after the colours that stand there.</summary>
public enum Cushion
{
    /// <summary>The baulk cushion.</summary>
    Baulk,

    /// <summary>The top cushion.</summary>
    Top,

    /// <summary>The right-hand side cushion, seen from baulk.</summary>
    YellowSide,

    /// <summary>The left-hand side cushion, seen from baulk.</summary>
    GreenSide,
}

/// <summary>Names and places of the cushions.</summary>
public static class Cushions
{
    /// <summary>The names, for messages.</summary>
    public const string AllowedNames = "baulk, top, yellow-side, green-side";
    private static readonly string[] Names = ["baulk", "top", "yellow-side", "green-side"];

    /// <summary>All four.</summary>
    public static IReadOnlyList<Cushion> All { get; } = Enum.GetValues<Cushion>();

    /// <summary>The name in the API and in files.</summary>
    public static string Name(this Cushion cushion) => Names[(int)cushion];

    /// <summary>Finds a cushion by its name; false if there is none.</summary>
    public static bool TryParse(string? name, out Cushion cushion)
    {
        var index = Array.IndexOf(Names, name);
        cushion = (Cushion)Math.Max(index, 0);
        return index >= 0;
    }

    /// <summary>Whether it is one of the short ones, across the table.</summary>
    public static bool IsEnd(this Cushion cushion) => cushion is Cushion.Baulk or Cushion.Top;

    /// <summary>The cushion whose nose line is nearest to a place.</summary>
    public static Cushion Nearest(Vec2 place) => All.MinBy(c => c.Distance(place));

    /// <summary>How far a ball centred there is from touching the nearest cushion, m; negative beyond a nose line.</summary>
    public static double Clearance(Vec2 ball) => Math.Min(Math.Min(ball.X, Length - ball.X), Math.Min(ball.Y, Width - ball.Y)) - BallRadius;

    /// <summary>From a point to a cushion's nose line, m; negative beyond it.</summary>
    public static double Distance(this Cushion cushion, Vec2 point) =>
        cushion switch
        {
            Cushion.Baulk => point.X,
            Cushion.Top => Length - point.X,
            Cushion.YellowSide => point.Y,
            _ => Width - point.Y,
        };

    /// <summary>The mirror image of a point, as a ball's centre sees a cushion: in the line a ball's radius before the nose.</summary>
    public static Vec2 Mirror(this Cushion cushion, Vec2 point) =>
        cushion switch
        {
            Cushion.Baulk => point with { X = 2 * BallRadius - point.X },
            Cushion.Top => point with { X = 2 * (Length - BallRadius) - point.X },
            Cushion.YellowSide => point with { Y = 2 * BallRadius - point.Y },
            _ => point with { Y = 2 * (Width - BallRadius) - point.Y },
        };

    /// <summary>How far along a cushion a point lies, m: from the baulk end, or of an end cushion from the yellow's side.</summary>
    public static double Along(this Cushion cushion, Vec2 point) => cushion.IsEnd() ? point.Y : point.X;
}
