using DeepBaize.Core;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Shots;
using DeepBaize.Core.Table;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Simulation;

namespace DeepBaize.Web.Positions;

/// <summary>A position's content after every check the core makes of it.</summary>
/// <param name="Pot">The pot that is chosen, if any.</param>
/// <param name="Frame">As it was sent; what it says is checked against the balls by <see cref="ToSituation"/>.</param>
public sealed record CheckedContent(Layout Layout, TableShape Shape, Stroke Stroke, bool IsFree, Pot? Pot, FrameEntry? Frame)
{
    /// <exception cref="InputException">Anything in it that cannot be.</exception>
    public static CheckedContent Of(PositionContent content)
    {
        var shape = new TableShape(Conditions.With(content.Conditions));
        var layout = Layout.Create(SimulationEndpoint.Entries(content.Balls), shape);
        var stroke = content.Stroke.ToStroke();
        stroke.ToStrike();
        if (content.Frame?.On is { } on) BallsOn.Named(on, "frame.on");
        var isFree = content.Stroke.Free;
        if (content.Stroke.Pot is not { } pot) return new(layout, shape, stroke, isFree, null, content.Frame);
        var errors = new List<InputError>();
        if (!Pockets.TryParse(pot.Pocket, out var pocket))
            errors.Add(new("stroke.pot.pocket", "There is no such pocket.", Pockets.AllowedNames));
        var slot = Ball.TryParse(pot.Ball, out var ball) ? layout.SlotOf(ball) : -1;
        if (slot < 1) errors.Add(new("stroke.pot.ball", "There is no such object ball on the table.", "an object ball that is on the table"));
        if (!(Math.Abs(pot.Part) <= 1)) errors.Add(new("stroke.pot.part", $"{pot.Part} is out of range.", "-1 (thick side) to 1 (thin side)"));
        var through = -1;
        if (pot.Through is not null)
        {
            through = Ball.TryParse(pot.Through, out var between) ? layout.SlotOf(between) : -1;
            if (through < 1 || through == slot) errors.Add(new("stroke.pot.through", "There is no such ball between.", "another object ball that is on the table"));
        }
        Cushion? off = null;
        if (pot.Off is not null)
        {
            if (Cushions.TryParse(pot.Off, out var cushion)) off = cushion;
            else errors.Add(new("stroke.pot.off", "There is no such cushion.", Cushions.AllowedNames));
            if (pot.Through is not null) errors.Add(new("stroke.pot.off", "A plant off a cushion is not judged.", "through or off, not both"));
        }
        InputException.ThrowIfAny(errors);
        return new(layout, shape, stroke, isFree, new(slot, pocket, pot.Part, through, off), content.Frame);
    }

    /// <summary>The balls with the frame they are in.</summary>
    /// <exception cref="InputException">A frame that cannot be with these balls.</exception>
    public Situation ToSituation()
    {
        var f = Frame ?? new();
        return Situation.Create(Layout, f.On is null ? null : BallsOn.Named(f.On, "frame.on"), f.First, f.Second, f.Turn, f.Break, f.FreeBall, f.Repeats);
    }

    /// <exception cref="InputException">None is chosen.</exception>
    public Pot ThePot() => Pot ?? throw new InputException("content.stroke.pot", "No pot is chosen.", "a ball and a pocket");

    /// <summary>
    /// The pot's geometry, the aim that does it if there is one, and the stroke aimed: by that aim, by the ghost ball for want of it, or freely.
    /// Null if no pot is chosen.
    /// </summary>
    public (Cut Cut, double? Found, Stroke Stroke)? Aimed()
    {
        if (Pot is null) return null;
        var cut = Cut.Of(Layout, Pot, Shape);
        var found = cut.CanBeAimed ? PotAim.Find(Layout, cut, Stroke, Shape) : null;
        return (cut, found, IsFree || !cut.CanBeAimed ? Stroke : Stroke with { AimDegrees = found ?? cut.AimDegrees });
    }
}
