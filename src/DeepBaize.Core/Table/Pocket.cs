namespace DeepBaize.Core.Table;

/// <summary>The six pockets. "Top" is the black's end; yellow and green are the sides those balls stand on.</summary>
public enum Pocket
{
    /// <summary>The baulk pocket on the yellow's side.</summary>
    Yellow,

    /// <summary>The baulk pocket on the green's side.</summary>
    Green,

    /// <summary>The middle pocket on the yellow's side.</summary>
    YellowMiddle,

    /// <summary>The middle pocket on the green's side.</summary>
    GreenMiddle,

    /// <summary>The top pocket on the yellow's side.</summary>
    YellowTop,

    /// <summary>The top pocket on the green's side.</summary>
    GreenTop,
}

/// <summary>Names of the pockets.</summary>
public static class Pockets
{
    private static readonly string[] Names = ["yellow", "green", "yellow-middle", "green-middle", "yellow-top", "green-top"];

    /// <summary>The names, for messages.</summary>
    public const string AllowedNames = "yellow, green, yellow-middle, green-middle, yellow-top, green-top";

    /// <summary>All six.</summary>
    public static IReadOnlyList<Pocket> All { get; } = Enum.GetValues<Pocket>();

    /// <summary>The name in the API and in files.</summary>
    public static string Name(this Pocket pocket) => Names[(int)pocket];

    /// <summary>Whether it is a middle pocket.</summary>
    public static bool IsMiddle(this Pocket pocket) => pocket is Pocket.YellowMiddle or Pocket.GreenMiddle;

    /// <summary>Finds a pocket by its name; false if there is none.</summary>
    public static bool TryParse(string? name, out Pocket pocket)
    {
        var index = Array.IndexOf(Names, name);
        pocket = (Pocket)Math.Max(index, 0);
        return index >= 0;
    }
}
