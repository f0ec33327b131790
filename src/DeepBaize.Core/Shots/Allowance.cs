using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Shots;

/// <summary>
/// What the aim allows for, each as a shift of the cue ball across its line of aim at the contact, m: + thins the contact, − thickens it.
/// </summary>
/// <param name="Squirt">Where side pushes the cue ball.</param>
/// <param name="Swerve">Where a raised butt with side curves it on the way.</param>
/// <param name="Throw">As much as the object ball's throw comes to: what would turn it so without throw.</param>
/// <param name="Net">The aim that pots against the ghost ball's.</param>
public readonly record struct Allowance(double Squirt, double Swerve, double Throw, double Net)
{
    /// <param name="aimDegrees">The aim that pots.</param>
    public static Allowance Of(in Cut cut, in Arrival arrival, double aimDegrees)
    {
        // Cut to the left, the cue ball passes on the right: a shift to the left thickens.
        var thin = cut.CutDegrees > 0 ? -1 : 1;
        var distance = cut.CueBallDistance;
        double Across(double degrees) => thin * distance * Math.Tan(degrees * Math.PI / 180);
        // A ball thrown to the left of its line of centres goes as if the cue ball stood that angle farther to the right around it.
        var byThrow = -thin * 2 * BallRadius * Math.Cos(cut.CutDegrees * Math.PI / 180) * Math.Sin(arrival.ThrowDegrees * Math.PI / 180);
        return new(Across(arrival.SquirtDegrees), Across(arrival.SwerveDegrees), byThrow, Across(aimDegrees - cut.AimDegrees));
    }
}

/// <summary>The same pot with another side: what it costs and saves.</summary>
/// <param name="SideTips">+ right-hand.</param>
/// <param name="IsHelping">Turns the object ball the way it is cut; false for plain ball and for the other side.</param>
public sealed record SideChoice(double SideTips, bool IsHelping, double Chance, double AimDegrees, Arrival Arrival, Allowance Allowance)
{
    /// <summary>What is called a touch, tips.</summary>
    public const double Touch = 0.25;

    /// <summary>Plain, a touch of helping side, and a touch of the other; those for which there is an aim.</summary>
    public static IReadOnlyList<SideChoice> Of(Table.Layout layout, Pot pot, Stroke stroke, Skill skill, Player player, Table.TableShape shape)
    {
        var choices = new List<SideChoice>();
        var cut = Cut.Of(layout, pot, shape);
        // Right-hand side drags the front of the cue ball, and what it meets, to the left.
        var helping = cut.CutDegrees >= 0 ? 1 : -1;
        foreach (var side in (double[])[0, helping * Touch, -helping * Touch])
        {
            var played = stroke with { SideTips = side };
            if (Tip.Margin(side, stroke.HeightTips) < 0) continue;
            var option = TableReading.ReadOne(layout, pot, played, skill, player, shape);
            if (option.AimDegrees is not { } aim) continue;
            played = played with { AimDegrees = aim, Pace = option.Pace };
            var trial = new PotTrial(layout, cut, shape);
            trial.Miss(played);
            if (Arrival.Of(trial.Record, played.ToStrike(), shape) is { } arrival)
                choices.Add(new(side, side * helping > 0, option.Chance, aim, arrival, Allowance.Of(cut, arrival, aim)));
        }
        return choices;
    }
}
