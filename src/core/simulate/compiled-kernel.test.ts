test('the kernel is there once it is compiled, and not before', async () => {
  let compile!: () => void;
  const compiling = jest.spyOn(WebAssembly, 'compile').mockImplementation(
    (code) =>
      new Promise((done) => {
        compile = () => done(new WebAssembly.Module(code as BufferSource));
      }),
  );
  // Other tests have the kernel from their beginning.
  await jest.isolateModulesAsync(async () => {
    const { bringCompiledKernel } = await import('./compiled-kernel');
    const { fastInUse } = await import('./fast-in-use');
    const brought = bringCompiledKernel();
    expect(compiling).toHaveBeenCalledTimes(1);
    expect(fastInUse()).toBeNull();
    compile();
    await brought;
    expect(fastInUse()).not.toBeNull();
    // It is compiled once, however often it is asked for.
    await bringCompiledKernel();
    expect(compiling).toHaveBeenCalledTimes(1);
  });
});
