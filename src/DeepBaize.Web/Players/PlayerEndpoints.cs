using System.ComponentModel;
using DeepBaize.Core;
using DeepBaize.Core.Players;
using DeepBaize.Data;
using DeepBaize.Data.Players;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Web.Players;

/// <summary>Who plays: what reach and chances are judged for.</summary>
public sealed record PlayerEntry
{
    [Description("right or left.")]
    public string Hand { get; init; } = "right";

    [Description("How tall, m.")]
    public double Height { get; init; } = 1.75;

    [Description("tour, county, club, learner, or own for the parts set by hand.")]
    public string Skill { get; init; } = "county";

    [Description("The parts set by hand; kept while another skill is chosen.")]
    public SkillEntry? Own { get; init; }

    [Description("On cuts: plain, or helping for a touch of helping side.")]
    public string SideHabit { get; init; } = "plain";

    [Description("Of the butt above level where nothing asks for more, degrees, 0 to 15.")]
    public double NaturalElevation { get; init; } = 3;

    public static IReadOnlyList<string> SideHabits { get; } = ["plain", "helping"];

    /// <exception cref="InputException">A figure out of range, or an unknown name.</exception>
    public Player Checked()
    {
        if (!SideHabits.Contains(SideHabit))
            throw new InputException("player.sideHabit", "There is no such habit.", string.Join(", ", SideHabits));
        return Player.Create(Hand, Height, Skill, NaturalElevation, Own?.ToSkill());
    }
}

public static class PlayerEndpoints
{
    public static void MapPlayer(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/player").WithTags("Player").ProducesProblem(400).ProducesProblem(503);
        group
            .MapGet(
                "",
                async (DeepBaizeContext db, CancellationToken cancel) =>
                {
                    var user = await db.Users.AsNoTracking().SingleAsync(u => u.Id == User.LocalId, cancel);
                    return new PlayerEntry
                    {
                        Hand = user.Hand,
                        Height = user.Height,
                        Skill = user.Skill,
                        Own = user.OwnSkill,
                        SideHabit = user.SideHabit,
                        NaturalElevation = user.NaturalElevation,
                    };
                }
            )
            .WithName("readPlayer")
            .WithSummary("Hand, height, skill, habit and how the cue lies");
        group
            .MapPut(
                "",
                async (PlayerEntry player, DeepBaizeContext db, CancellationToken cancel) =>
                {
                    player.Checked();
                    var user = await db.Users.SingleAsync(u => u.Id == User.LocalId, cancel);
                    (user.Hand, user.Height, user.Skill, user.OwnSkill, user.SideHabit, user.NaturalElevation) = (
                        player.Hand.ToLowerInvariant(),
                        player.Height,
                        player.Skill,
                        player.Own,
                        player.SideHabit,
                        player.NaturalElevation
                    );
                    await db.SaveChangesAsync(cancel);
                    return player;
                }
            )
            .WithName("savePlayer")
            .WithSummary("Saves hand, height, skill, habit and how the cue lies");
    }
}
