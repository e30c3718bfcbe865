console.error('not yet');
