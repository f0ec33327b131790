using DeepBaize.Core.Table;

namespace DeepBaize.Core.Rules;

/// <summary>What balls are worth (Section 3, rule 1, from memory) and what is left on the table.</summary>
public static class Values
{
    /// <summary>Points of a ball: red 1, yellow 2 … black 7; the white 0.</summary>
    public static int Of(Ball ball) =>
        ball.IsRed ? 1
        : ball.IsColour ? ball.Index + 1
        : 0;

    /// <summary>Values of a red and of the black, points.</summary>
    public const int Red = 1,
        Black = 7;

    /// <summary>Yellow to black: 27.</summary>
    public const int AllColours = 2 + 3 + 4 + 5 + 6 + 7;

    /// <summary>The penalty of a foul is at least this (Section 3, rule 11, from memory).</summary>
    public const int LeastPenalty = 4;
}
