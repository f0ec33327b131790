using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Design;

namespace DeepBaize.Data;

/// <summary>For <c>dotnet ef migrations add</c> only; nothing connects.</summary>
internal sealed class DesignTimeFactory : IDesignTimeDbContextFactory<DeepBaizeContext>
{
    public DeepBaizeContext CreateDbContext(string[] args)
    {
        var options = new DbContextOptionsBuilder<DeepBaizeContext>();
        DeepBaizeContext.Configure(options, "Host=127.0.0.1;Database=none");
        return new(options.Options);
    }
}
