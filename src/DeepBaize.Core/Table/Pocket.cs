namespace DeepBaize.Core.Table;

/// <summary>The six pockets. "Top" is the black's end; yellow and green are the sides those balls stand on.</summary>
public enum Pocket
{
    Yellow,
    Green,
    YellowMiddle,
    GreenMiddle,
    YellowTop,
    GreenTop,
}

public static class Pockets
{
    private static readonly string[] Names = ["yellow", "green", "yellow-middle", "green-middle", "yellow-top", "green-top"];

    public const string AllowedNames = "yellow, green, yellow-middle, green-middle, yellow-top, green-top";

    public static IReadOnlyList<Pocket> All { get; } = Enum.GetValues<Pocket>();

    /// <summary>The name in the API and in files.</summary>
    public static string Name(this Pocket pocket) => Names[(int)pocket];

    public static bool IsMiddle(this Pocket pocket) => pocket is Pocket.YellowMiddle or Pocket.GreenMiddle;

    public static bool TryParse(string? name, out Pocket pocket)
    {
        var index = Array.IndexOf(Names, name);
        pocket = (Pocket)Math.Max(index, 0);
        return index >= 0;
    }
}
