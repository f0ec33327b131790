using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace DeepBaize.Data.Answers;

/// <summary>A row that is written to find out whether anything can be saved: of each owner one.</summary>
public sealed class SaveCheck
{
    public required Guid OwnerId { get; init; }
    public required DateTimeOffset CheckedAt { get; set; }
}

internal sealed class SaveCheckConfiguration : IEntityTypeConfiguration<SaveCheck>
{
    public void Configure(EntityTypeBuilder<SaveCheck> check)
    {
        check.HasKey(c => c.OwnerId);
        check.HasOne<User>().WithMany().HasForeignKey(c => c.OwnerId).OnDelete(DeleteBehavior.Cascade);
    }
}
