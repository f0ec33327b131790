using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace DeepBaize.Data.Answers;

/// <summary>
/// What was answered to a request that created something, under the key that the asker gave it: whoever asks again, because the answer was
/// lost on the way, gets the same one, and nothing is created twice.
/// </summary>
public sealed class KeptAnswer
{
    public const int MaxKey = 100;

    public required Guid OwnerId { get; init; }

    /// <summary>The asker's own, for one request.</summary>
    public required string Key { get; init; }

    /// <summary>SHA-256 of address and body, so that a key used for something else is noticed.</summary>
    public required byte[] Request { get; init; }
    public int Status { get; set; }

    /// <summary>Address of what was created; empty if it has none.</summary>
    public string Location { get; set; } = "";

    /// <summary>The answer's JSON.</summary>
    public string Body { get; set; } = "";
    public required DateTimeOffset CreatedAt { get; init; }
}

internal sealed class KeptAnswerConfiguration : IEntityTypeConfiguration<KeptAnswer>
{
    public void Configure(EntityTypeBuilder<KeptAnswer> answer)
    {
        answer.HasKey(a => new { a.OwnerId, a.Key });
        answer.Property(a => a.Key).HasMaxLength(KeptAnswer.MaxKey);
        answer.HasIndex(a => a.CreatedAt);
        answer.HasOne<User>().WithMany().HasForeignKey(a => a.OwnerId).OnDelete(DeleteBehavior.Cascade);
    }
}
