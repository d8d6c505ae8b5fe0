/** The one of the framework's constants that the browser needs: the response header that names the build. */
export const NEXT_NAV_DEPLOYMENT_ID_HEADER = 'x-nextjs-deployment-id';
