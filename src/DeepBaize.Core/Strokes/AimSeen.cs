using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Strokes;

/// <summary>How the line of aim passes the ball, as the player sees it down the cue: with all that is allowed for.</summary>
/// <param name="Fullness">How much of the ball the white would cover on the line of aim, 1 full; below 0 its edge passes beside it.</param>
/// <param name="PotsAs">How full the ball is struck, by the plain geometry of the pot.</param>
/// <param name="Offset">Of the line of aim from the ball's centre, m: + on the side on which the white passes for this cut.</param>
/// <param name="EdgeInside">How far the white's edge lies inside the ball's edge on the line of aim, m; negative outside.</param>
public readonly record struct AimSeen(double Fullness, double PotsAs, double Offset, double EdgeInside)
{
    /// <summary>Reads an aim against the ball that the white is to strike.</summary>
    public static AimSeen Of(Vec2 white, Vec2 ball, in Cut cut, double aimDegrees)
    {
        // Cut to the left, the white passes on the right of the ball, which lies to the left of the line.
        var side = cut.CutDegrees >= 0 ? 1 : -1;
        var offset = side * Geometry.Angle.FromDegrees(aimDegrees).Unit.Cross(ball - white);
        var edge = 2 * BallRadius - Math.Abs(offset);
        return new(edge / (2 * BallRadius), cut.FullnessFraction, offset, edge);
    }
}
