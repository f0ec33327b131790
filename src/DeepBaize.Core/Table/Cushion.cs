using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Table;

/// <summary>The four cushions; the sides are named after the colours that stand there.</summary>
public enum Cushion { Baulk, Top, YellowSide, GreenSide }

public static class Cushions
{
    public const string AllowedNames = "baulk, top, yellow-side, green-side";
    private static readonly string[] Names = ["baulk", "top", "yellow-side", "green-side"];

    public static IReadOnlyList<Cushion> All { get; } = Enum.GetValues<Cushion>();

    /// <summary>The name in the API and in files.</summary>
    public static string Name(this Cushion cushion) => Names[(int)cushion];

    public static bool TryParse(string? name, out Cushion cushion)
    {
        var index = Array.IndexOf(Names, name);
        cushion = (Cushion)Math.Max(index, 0);
        return index >= 0;
    }

    /// <summary>The cushion nearest to a point, m.</summary>
    public static Cushion At(double x, double y) => All.MinBy(c => Distance(c, x, y));

    /// <summary>From a point to a cushion's nose line, m.</summary>
    public static double Distance(this Cushion cushion, double x, double y) => cushion switch
    {
        Cushion.Baulk => x,
        Cushion.Top => Length - x,
        Cushion.YellowSide => y,
        _ => Width - y,
    };

    /// <summary>The mirror image of a point, as a ball's centre sees a cushion: in the line a ball's radius before the nose.</summary>
    public static (double X, double Y) Mirror(this Cushion cushion, double x, double y) => cushion switch
    {
        Cushion.Baulk => (2 * BallRadius - x, y),
        Cushion.Top => (2 * (Length - BallRadius) - x, y),
        Cushion.YellowSide => (x, 2 * BallRadius - y),
        _ => (x, 2 * (Width - BallRadius) - y),
    };
}
