using DeepBaize.Core;
using DeepBaize.Core.Players;

namespace DeepBaize.Web.Players;

/// <summary>The other player: as the one who asks, but for the skill.</summary>
internal static class RivalSkill
{
    /// <summary>Skill where none is said.</summary>
    public const string Usual = "county";

    /// <exception cref="InputException">There is no such skill.</exception>
    public static Player Checked(string rival, Player player) => player with { Skill = Skill.Named(rival, "rival") };
}
