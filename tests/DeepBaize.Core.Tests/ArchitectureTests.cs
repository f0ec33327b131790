using NetArchTest.Rules;

namespace DeepBaize.Core.Tests;

public class ArchitectureTests
{
    [Fact]
    public void The_core_depends_on_nothing_but_the_base_library()
    {
        var foreign = typeof(InputException).Assembly.GetReferencedAssemblies()
            .Where(a => !a.Name!.StartsWith("System", StringComparison.Ordinal)).Select(a => a.Name);
        Assert.Empty(foreign);
    }

    [Fact]
    public void The_table_knows_nothing_of_physics_nor_physics_of_shots()
    {
        var types = Types.InAssembly(typeof(InputException).Assembly);
        Assert.True(types.That().ResideInNamespace("DeepBaize.Core.Table").ShouldNot().HaveDependencyOn("DeepBaize.Core.Physics").GetResult().IsSuccessful);
        Assert.True(types.That().ResideInNamespace("DeepBaize.Core.Physics").ShouldNot().HaveDependencyOn("DeepBaize.Core.Shots").GetResult().IsSuccessful);
    }
}
