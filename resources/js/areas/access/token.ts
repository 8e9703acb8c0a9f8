import { useLocation, useParams } from 'react-router';

/**
 * The secret of a link. It stands behind the #, which no browser sends and no server writes down; older links have it
 * in the path.
 */
export function useToken(): string {
    const { token = '' } = useParams();
    const { hash } = useLocation();
    return /^#[\w-]{1,64}$/.test(hash) ? hash.slice(1) : token;
}
